'use client';
import AddRounded from '@mui/icons-material/AddRounded';
import DeleteOutlineRounded from '@mui/icons-material/DeleteOutlineRounded';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Typography from '@mui/material/Typography';
import { useDatum } from '@/ui/common/useDatum';
import { LengthField } from '@/ui/common/fields';
import { Group } from '@/ui/common/SheetParts';
import { useOpenJobLater } from '@/ui/following';

const sides = [
  ['x0', 'Left'],
  ['x1', 'Right'],
  ['y0', 'Lower edge'],
  ['y1', 'Upper edge'],
  ['height', 'Height over the face'],
] as const;

/** What holds the blank down: boxes that nothing may run into while it is low. */
export function Clamps() {
  const job = useOpenJobLater((s) => s.job)!;
  const edit = useOpenJobLater((s) => s.edit);
  const origin = useDatum(job);
  const off = { x0: origin.x, x1: origin.x, y0: origin.y, y1: origin.y, height: 0 };
  const add = () =>
    edit('Add clamp', (j) => {
      // The next corner that is free, a little over the edge.
      const [x, y] = [
        [0, 0],
        [j.blank.width, j.blank.height],
        [j.blank.width, 0],
        [0, j.blank.height],
      ][j.clamps.length % 4];
      j.clamps.push({ x0: x - 15, y0: y - 10, x1: x + 15, y1: y + 10, height: 8 });
    });
  return (
    <Group
      title="Clamps"
      action={
        <Button size="small" color="inherit" startIcon={<AddRounded />} onClick={add}>
          Add a clamp
        </Button>
      }
    >
      {!job.clamps.length && (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          None. Paths and tabs keep off clamps that are entered here, and the proof checks it.
        </Typography>
      )}
      {job.clamps.map((k, i) => (
        <Box key={i} role="group" aria-label={`Clamp ${i + 1}`} sx={{ mb: 1.5 }}>
          <Box sx={{ display: 'flex', alignItems: 'center', mb: 0.5 }}>
            <Typography variant="body2" sx={{ flex: 1, fontWeight: 550 }}>
              Clamp {i + 1}
            </Typography>
            <IconButton
              size="small"
              aria-label={`Take clamp ${i + 1} away`}
              onClick={() => edit('Take clamp away', (j) => void j.clamps.splice(i, 1))}
            >
              <DeleteOutlineRounded fontSize="small" />
            </IconButton>
          </Box>
          <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1.25 }}>
            {sides.map(([key, label]) => (
              <LengthField
                key={key}
                label={label}
                value={k[key] - off[key]}
                unit={job.unit}
                min={{ x0: -1000, y0: -1000, x1: k.x0 + 0.1, y1: k.y0 + 0.1, height: 0.1 }[key] - off[key]}
                max={{ x0: k.x1 - 0.1, y0: k.y1 - 0.1, x1: 10000, y1: 10000, height: 300 }[key] - off[key]}
                onChange={(v) => v !== null && edit('Change clamp', (j) => void (j.clamps[i][key] = v + off[key]))}
              />
            ))}
          </Box>
        </Box>
      ))}
    </Group>
  );
}
