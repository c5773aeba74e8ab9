'use client';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { kindOf } from '@/core/cuts/registry';
import { Group } from '@/ui/common/SheetParts';
import { useOpenJobLater, useWorkLater } from '@/ui/following';
import { Told } from './Told';

/** What may stay on the relief and does: by which cut, how high, where and why. Only where a cut goes over the relief. */
export function StaysGroup() {
  const cuts = useOpenJobLater((s) => s.job!.cuts);
  const proof = useWorkLater((w) => w.proof)!;
  const over = cuts.some((c) => c.enabled && kindOf(c.kind).smooths !== undefined);
  if (!over) return null;
  return (
    <Group title="What stays on the relief">
      {proof.stays.length ? (
        <Box component="ul" aria-label="What stays" sx={{ listStyle: 'none', p: 0, m: 0, display: 'grid', gap: 1.1 }}>
          {proof.stays.map((f) => (
            <li key={f.text}>
              <Told finding={f} />
            </li>
          ))}
        </Box>
      ) : (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {proof.compared ? 'Nowhere more than its cuts may leave.' : 'Being looked at.'}
        </Typography>
      )}
    </Group>
  );
}
