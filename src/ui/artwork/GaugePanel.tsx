'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import CircularProgress from '@mui/material/CircularProgress';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { scaleLinear } from 'd3-scale';
import { useEffect, useState } from 'react';
import { artworkHelper } from '@/compute/artworkHelper';
import type { GaugeResult } from '@/compute/artwork';
import type { Item } from '@/core/artwork/item';
import { radiusOf, type Cutter } from '@/core/cutters/cutter';
import { formatLength, type Unit } from '@/core/units/length';
import { saysOf } from '@/core/units/says';
import { useLibrary } from '@/ui/library/useLibrary';
import { setView } from '@/ui/view';

const W = 312;
const H = 120;
const LEFT = 4;
const FOOT = 30;

/** End mills of the library by rising diameter, one of each. */
const mills = (cutters: readonly Cutter[]): Cutter[] =>
  cutters
    .filter((c) => c.shape === 'flat' || c.shape === 'ball')
    .filter((c, i, all) => all.findIndex((d) => Math.abs(radiusOf(d) - radiusOf(c)) < 1e-6) === i)
    .sort((a, b) => radiusOf(a) - radiusOf(b))
    .slice(0, 12);

/** How wide the strokes and gaps of what is picked are, and which cutters get between them. */
export function GaugePanel({ items, unit }: { items: readonly Item[]; unit: Unit }) {
  const cutters = useLibrary((l) => l.cutters);
  const fit = mills(cutters);
  const [result, setResult] = useState<{ of: readonly Item[]; r: GaugeResult } | null>(null);
  const [error, setError] = useState('');
  const [side, setSide] = useState<'strokes' | 'gaps'>('strokes');
  const key = items.map((i) => `${i.id}${i.x},${i.y},${i.angle},${JSON.stringify(i.values).length}`).join();
  useEffect(() => {
    let live = true;
    const t = setTimeout(() => {
      artworkHelper()
        .ask((api) => api.gauge(items, fit.map(radiusOf)))
        .then((r) => live && (setResult({ of: items, r }), setError('')))
        .catch(
          (e: Error) => live && setError(`These outlines could not be gauged. ${saysOf(e, 'Try fewer at a time.')}`),
        );
    }, 150);
    return () => {
      live = false;
      clearTimeout(t);
      setView({ gauged: [] });
    };
    // What is gauged is told by the key; items are new objects at every change of the job.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  if (error)
    return (
      <Typography role="alert" variant="body2" sx={{ color: 'error.main' }}>
        {error}
      </Typography>
    );
  if (!result)
    return (
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', color: 'text.secondary', fontSize: 13 }}>
        <CircularProgress size={14} /> Gauging{'\u2026'}
      </Box>
    );
  const s = result.r[side];
  const widest = s.step * s.length.length;
  const x = scaleLinear([0, widest], [LEFT, W - LEFT]);
  const y = scaleLinear([0, Math.max(...s.length) || 1], [H - FOOT, 6]);
  const show = (from: number, to: number) =>
    setView({ gauged: s.pieces.filter((p) => p.width >= from && p.width <= to).slice(0, 4000) });
  const mm = (v: number) => formatLength(v, unit, unit === 'mm' ? 2 : 4);
  const inside = fit.filter((c) => 2 * radiusOf(c) <= widest * 1.001);
  return (
    <Box sx={{ display: 'grid', gap: 1 }}>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={side}
        aria-label="What is gauged"
        onChange={(_, v: 'strokes' | 'gaps' | null) => v && (setSide(v), setView({ gauged: [] }))}
      >
        <ToggleButton value="strokes" sx={{ textTransform: 'none', px: 1.5, py: 0.25, fontSize: 12.5 }}>
          Strokes
        </ToggleButton>
        <ToggleButton value="gaps" sx={{ textTransform: 'none', px: 1.5, py: 0.25, fontSize: 12.5 }}>
          Gaps
        </ToggleButton>
      </ToggleButtonGroup>
      {s.narrowest ? (
        <>
          <svg
            viewBox={`0 0 ${W} ${H}`}
            width="100%"
            role="img"
            aria-label={`Widths of the ${side} from 0 to ${mm(widest)} ${unit}`}
          >
            {s.length.map((l, k) => (
              <g key={k} style={{ cursor: 'pointer' }} onClick={() => show(k * s.step, (k + 1) * s.step)}>
                <rect
                  x={x(k * s.step)}
                  y={6}
                  width={Math.max(1, x(s.step) - x(0))}
                  height={H - FOOT - 6}
                  fill="transparent"
                />
                <rect
                  x={x(k * s.step) + 0.75}
                  y={y(l)}
                  width={Math.max(1, x(s.step) - x(0) - 1.5)}
                  height={H - FOOT - y(l)}
                  rx={1.5}
                  fill="var(--mui-palette-primary-main)"
                  opacity={0.85}
                >
                  <title>{`${mm(k * s.step)}\u2013${mm((k + 1) * s.step)} ${unit}: ${mm(l)} ${unit} of them. Click to see where.`}</title>
                </rect>
              </g>
            ))}
            <line x1={LEFT} x2={W - LEFT} y1={H - FOOT} y2={H - FOOT} stroke="var(--mui-palette-line)" />
            {inside.map((c, i) => (
              <g key={c.id}>
                <line
                  x1={x(2 * radiusOf(c))}
                  x2={x(2 * radiusOf(c))}
                  y1={10}
                  y2={H - FOOT + 4}
                  stroke="var(--mui-palette-brass)"
                  strokeDasharray="2 2"
                />
                <text
                  x={x(2 * radiusOf(c))}
                  y={H - FOOT + 14 + (i % 2) * 10}
                  textAnchor="middle"
                  fontSize="9"
                  fill="var(--mui-palette-text-secondary)"
                >
                  {mm(2 * radiusOf(c))}
                </text>
              </g>
            ))}
          </svg>
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, fontSize: 13 }}>
            <span>
              Narrowest {side === 'strokes' ? 'stroke' : 'gap'}:{' '}
              <b>
                {mm(s.narrowest.width)} {unit}
              </b>
            </span>
            <Button
              size="small"
              onClick={() =>
                s.narrowest &&
                setView({ gauged: [s.narrowest], marked: { x: s.narrowest.x, y: s.narrowest.y, text: 'narrowest' } })
              }
            >
              Show me
            </Button>
          </Box>
          {side === 'strokes' && (
            <Box
              component="table"
              sx={{
                fontSize: 12.5,
                borderSpacing: 0,
                '& td': { py: 0.3, pr: 1.5 },
                '& td:last-child': { textAlign: 'right', pr: 0, fontVariantNumeric: 'tabular-nums' },
              }}
            >
              <tbody>
                {fit.map((c, i) => (
                  <Box component="tr" key={c.id} sx={{ color: result.r.entered[i] > 0 ? undefined : 'text.secondary' }}>
                    <td>{c.name}</td>
                    <td>
                      {result.r.entered[i] > 0.9995
                        ? 'enters all of it'
                        : result.r.entered[i] > 0
                          ? `enters ${(100 * result.r.entered[i]).toFixed(1)} %`
                          : 'does not fit'}
                    </td>
                  </Box>
                ))}
              </tbody>
            </Box>
          )}
        </>
      ) : (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {side === 'strokes'
            ? 'There is no closed outline among what is picked.'
            : 'There are no gaps between these outlines.'}
        </Typography>
      )}
    </Box>
  );
}
