'use client';
import PushPinOutlined from '@mui/icons-material/PushPinOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { OneSetup } from '@/core/job/job';
import { heightAt, type HeightField } from '@/core/relief/field';
import { lengthText } from '@/core/units/length';
import { useDatum } from '@/ui/common/useDatum';
import { setView, useView } from '@/ui/view';

/** Heights that were pinned on the plan, and what lies between two of them. */
export function Readings({ job, field }: { job: OneSetup; field: HeightField }) {
  const pins = useView((v) => v.pins);
  const pinning = useView((v) => v.pinning);
  const origin = useDatum(job);
  const text = (v: number) => lengthText(v, job.unit, job.unit === 'mm' ? 2 : 4);
  const read = pins.map((p) => ({ ...p, z: heightAt(field, p.x, p.y) }));
  const [a, b] = read;
  const run = b ? Math.hypot(b.x - a.x, b.y - a.y) : 0;
  return (
    <Box role="group" aria-label="Readings" sx={{ fontSize: 13, display: 'grid', gap: 0.75 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        <Button
          size="small"
          variant={pinning ? 'contained' : 'outlined'}
          color={pinning ? 'primary' : 'inherit'}
          aria-pressed={pinning}
          startIcon={<PushPinOutlined />}
          onClick={() => setView({ pinning: !pinning })}
        >
          Pin heights on the plan
        </Button>
        {!!pins.length && (
          <Button size="small" color="inherit" onClick={() => setView({ pins: [] })}>
            Take the pins off
          </Button>
        )}
      </Box>
      {pinning && pins.length < 2 && (
        <Typography sx={{ fontSize: 13, color: 'text.secondary' }}>
          {pins.length
            ? 'Press another place for the difference.'
            : 'Press the plan where you want to know the height.'}
        </Typography>
      )}
      {read.map((p, k) => (
        <div key={k}>
          <b>{'AB'[k]}</b> at X {text(p.x - origin.x)}, Y {text(p.y - origin.y)}:{' '}
          {Number.isFinite(p.z)
            ? `${text(-p.z)} below the face, ${text(p.z + job.blank.thickness)} above the bed`
            : 'the relief is empty here'}
        </div>
      ))}
      {b && Number.isFinite(b.z - a.z) && (
        <div>
          {`B lies ${text(Math.abs(b.z - a.z))} ${b.z < a.z ? 'deeper' : 'higher'} than A, ${text(run)} away`}
          {run > 0 && `: ${((Math.atan(Math.abs(b.z - a.z) / run) * 180) / Math.PI).toFixed(1)}\u00b0 on the way`}
        </div>
      )}
    </Box>
  );
}
