'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { byGroup } from '@/core/cutters/groups';
import type { OneSetup } from '@/core/job/job';
import { cellOf, finestInUse } from '@/core/pipeline/finest';
import { reliefCell } from '@/core/pipeline/shaping';
import { furrowWidth, HAIR } from '@/core/cutters/detail';
import { lengthText } from '@/core/units/length';
import { setReliefCell } from '@/ui/actions/relief';
import { ChoiceField } from '@/ui/common/fields';
import { useLibrary } from '@/ui/library/useLibrary';
import { setView, useView } from '@/ui/view';

/**
 * What the finest cutter that cuts the relief, or another that is chosen, can still show, beside what its nodes and its pictures
 * hold; nodes as fine as that needs are a press away. `pixel`, `finestPixel`: how wide those of the coarsest picture in it are, and
 * of the finest where all of it is of pictures; 0 where there are none.
 */
export function FinestCutter({ job, pixel, finestPixel }: { job: OneSetup; pixel: number; finestPixel: number }) {
  const chosen = useView((v) => v.finest);
  const id = chosen === undefined ? finestInUse(job)?.id : chosen;
  const library = useLibrary((l) => l.cutters);
  const cutters = [...job.cutters, ...library.filter((c) => !job.cutters.some((own) => own.id === c.id))];
  const cutter = cutters.find((c) => c.id === id);
  const length = (v: number) => lengthText(v, job.unit, job.unit === 'mm' ? 2 : 4);
  const cell = reliefCell(job);
  const needed = cutter && cellOf(cutter, finestPixel);
  return (
    <Box sx={{ mt: 1.25 }}>
      <ChoiceField
        label="Finest cutter"
        value={cutter ? cutter.id : ''}
        options={[
          { value: '', label: 'Not chosen' },
          ...byGroup(cutters).map((c) => ({ value: c.id, label: c.name, group: c.group })),
        ]}
        onChange={(v) => setView({ finest: v || null })}
      />
      {cutter && needed && (
        <Box role="status" sx={{ fontSize: 13, mt: 0.75, color: 'text.secondary' }}>
          {`A furrow ${length(HAIR)} deep becomes ${length(furrowWidth(cutter))} wide: finer detail it does not show.`}
          {pixel > 0 && ` The coarsest picture has pixels of ${length(pixel)}.`}
          {cell > needed * 1.001 && (
            <Box sx={{ mt: 0.75 }}>
              {`${finestPixel > 0 && needed > furrowWidth(cutter) / 2 ? 'Its pictures hold' : 'It shows'} more than nodes ${length(cell)} apart do. `}
              <Button size="small" variant="outlined" color="inherit" onClick={() => setReliefCell(needed)}>
                {`Set them ${length(needed)} apart`}
              </Button>
            </Box>
          )}
        </Box>
      )}
    </Box>
  );
}
