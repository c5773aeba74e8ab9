'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo, useState } from 'react';
import { combinations } from '@/core/artwork/shapeWork';
import type { Unit } from '@/core/units/length';
import { joinPicked, workOnShapes } from '@/ui/actions/artwork';
import { action, combinationNames } from '@/ui/actions/registry';
import { ChoiceField, LengthField, NumberField } from '@/ui/common/fields';
import { Quiet } from './ArrangePanel';

/** New outlines from what is picked: combined, offset, widened, taken apart. */
export const ShapePanel = memo(function ShapePanel({
  unit,
  count,
  hasLines,
}: {
  unit: Unit;
  count: number;
  hasLines: boolean;
}) {
  const [open, setOpen] = useState<'offset' | 'widen' | 'join' | null>(null);
  const [v, set] = useState({ distance: 3, steps: 1, corners: 'round', width: 2, ends: 0.1 });
  return (
    <Box sx={{ display: 'grid', gap: 1 }}>
      <Box sx={{ display: 'flex', gap: 0.75, flexWrap: 'wrap' }}>
        {count > 1 &&
          combinations.map((how) => (
            <Quiet key={how} onClick={action(`combine-${how}`).run}>
              {combinationNames[how]}
            </Quiet>
          ))}
        <Quiet onClick={() => setOpen(open === 'offset' ? null : 'offset')}>Offset</Quiet>
        {hasLines && <Quiet onClick={() => setOpen(open === 'widen' ? null : 'widen')}>Give lines a width</Quiet>}
        {hasLines && <Quiet onClick={() => setOpen(open === 'join' ? null : 'join')}>Join ends</Quiet>}
        <Quiet onClick={() => void workOnShapes({ kind: 'apart' }, 'Piece')}>Split into shapes</Quiet>
        <Quiet onClick={action('to-outlines').run}>Convert to outlines</Quiet>
      </Box>
      {open === 'offset' && (
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1 }}>
          <LengthField
            label="Distance"
            value={v.distance}
            unit={unit}
            min={0.001}
            max={1000}
            onChange={(d) => d !== null && set({ ...v, distance: d })}
          />
          <NumberField
            label="Steps"
            value={v.steps}
            whole
            min={1}
            max={100}
            onChange={(steps) => set({ ...v, steps })}
          />
          <ChoiceField
            label="Corners"
            value={v.corners}
            options={[
              { value: 'round', label: 'Round' },
              { value: 'sharp', label: 'Sharp' },
              { value: 'square', label: 'Cut square' },
            ]}
            onChange={(corners) => set({ ...v, corners })}
          />
          <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'end' }}>
            {(
              [
                ['Outwards', 1],
                ['Inwards', -1],
              ] as const
            ).map(([name, sign]) => (
              <Button
                key={name}
                variant="contained"
                size="small"
                onClick={() =>
                  void workOnShapes(
                    { kind: 'offset', distance: sign * v.distance, steps: v.steps, corners: v.corners as 'round' },
                    'Offset',
                  )
                }
              >
                {name}
              </Button>
            ))}
          </Box>
        </Box>
      )}
      {open === 'join' && (
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1, alignItems: 'end' }}>
          <LengthField
            label="Ends nearer than"
            value={v.ends}
            unit={unit}
            min={0}
            max={100}
            onChange={(ends) => ends !== null && set({ ...v, ends })}
          />
          <Button variant="contained" size="small" onClick={() => joinPicked(v.ends)}>
            Join
          </Button>
        </Box>
      )}
      {open === 'widen' && (
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1, alignItems: 'end' }}>
          <LengthField
            label="Width of the lines"
            value={v.width}
            unit={unit}
            min={0.001}
            max={1000}
            onChange={(w) => w !== null && set({ ...v, width: w })}
          />
          <Button
            variant="contained"
            size="small"
            onClick={() => void workOnShapes({ kind: 'widen', width: v.width }, 'Widened')}
          >
            Widen
          </Button>
        </Box>
      )}
    </Box>
  );
});
