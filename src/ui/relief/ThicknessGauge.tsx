'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { scaleLinear } from 'd3-scale';
import { materials } from '@/core/cutters/materials';
import type { Blank } from '@/core/job/job';
import type { HeightFacts } from '@/core/relief/facts';
import { fitOf } from '@/core/relief/fit';
import { formatLength, type Unit } from '@/core/units/length';
import { scaleRelief, shiftRelief } from '@/ui/actions/relief';
import { LengthField } from '@/ui/common/fields';

const WIDE = 300;
const TALL = 150;
const PAD = 12;
/** What is written on the blank is dark by day and night, as the blank is light. */
const ON_FACE = '#1e2a2f';

/**
 * How the relief lies in the blank, to scale from face to bed, with the chart of its heights: how much of it lies at each. Any
 * two of the gaps and the height give the third.
 */
export function ThicknessGauge({ facts, blank, unit }: { facts: HeightFacts; blank: Blank; unit: Unit }) {
  const fit = fitOf(facts, blank.thickness);
  const [top, bottom] = [Math.max(0, facts.highest), Math.min(-blank.thickness, facts.lowest)];
  const y = scaleLinear()
    .domain([top, bottom])
    .range([PAD, TALL - PAD]);
  const most = Math.max(1, ...facts.bands);
  const x = scaleLinear().domain([0, most]).range([0, 130]);
  const step = (facts.highest - facts.lowest) / facts.bands.length;
  const length = (v: number) => `${formatLength(v, unit)} ${unit}`;
  const [face, grain] = [materials[blank.material].face, 'var(--mui-palette-line)'];
  return (
    <>
      <Box
        component="svg"
        viewBox={`0 0 ${WIDE} ${TALL}`}
        role="img"
        aria-label={`Relief from ${length(facts.lowest)} to ${length(facts.highest)}, median ${length(facts.median)}, in a blank of ${length(blank.thickness)}`}
        sx={{ width: '100%', display: 'block', mb: 1 }}
      >
        <rect x={52} y={y(0)} width={WIDE - 52} height={y(-blank.thickness) - y(0)} fill={face} stroke={grain} />
        <rect
          x={52}
          y={y(facts.highest)}
          width={WIDE - 52}
          height={Math.max(1, y(facts.lowest) - y(facts.highest))}
          fill="var(--mui-palette-primary-main)"
          opacity={0.22}
        />
        {facts.bands.map((n, k) => (
          <rect
            key={k}
            x={56}
            y={y(facts.lowest + (k + 1) * step)}
            width={x(n)}
            height={Math.max(0.5, y(facts.lowest + k * step) - y(facts.lowest + (k + 1) * step))}
            fill="var(--mui-palette-primary-main)"
          />
        ))}
        {(
          [
            [0, 'Face'],
            [-blank.thickness, 'Bed'],
          ] as const
        ).map(([z, word]) => (
          <text key={word} x={46} y={y(z) + 4} textAnchor="end" fontSize={11.5} fill="currentColor">
            {word}
          </text>
        ))}
        <line x1={190} x2={WIDE - 4} y1={y(facts.median)} y2={y(facts.median)} stroke={ON_FACE} strokeDasharray="3 3" />
        <text x={WIDE - 6} y={y(facts.median) - 4} textAnchor="end" fontSize={11.5} fill={ON_FACE}>
          Median {formatLength(facts.median, unit)}
        </text>
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(100px, 1fr))', gap: 1 }}>
        <LengthField
          label="Gap above"
          value={fit.above}
          unit={unit}
          onChange={(v) => v !== null && shiftRelief(fit.above - v)}
        />
        <LengthField
          label="Relief height"
          value={fit.height}
          unit={unit}
          min={0.001}
          onChange={(v) => v !== null && fit.height > 0 && scaleRelief(v / fit.height, facts.highest)}
        />
        <LengthField
          label="Gap below"
          value={fit.below}
          unit={unit}
          onChange={(v) => v !== null && shiftRelief(v - fit.below)}
        />
      </Box>
      {fit.trouble && (
        <Box role="alert" sx={{ mt: 1, display: 'grid', justifyItems: 'start', gap: 0.5 }}>
          <Typography variant="body2" sx={{ color: 'error.main' }}>
            {fit.trouble === 'height'
              ? `The relief is ${length(fit.height)} high; the blank is ${length(blank.thickness)} thick.`
              : fit.trouble === 'above'
                ? `It stands ${length(-fit.above)} above the top face.`
                : `It goes ${length(-fit.below)} below the underside.`}
          </Typography>
          <Button
            size="small"
            variant="outlined"
            onClick={() =>
              fit.trouble === 'height'
                ? scaleRelief((0.9 * blank.thickness) / fit.height, facts.highest)
                : shiftRelief(fit.trouble === 'above' ? fit.above : -fit.below)
            }
          >
            {fit.trouble === 'height'
              ? `Make it ${length(0.9 * blank.thickness)} high`
              : fit.trouble === 'above'
                ? 'Bring its top down to the face'
                : 'Bring its bottom up to the underside'}
          </Button>
        </Box>
      )}
    </>
  );
}
