'use client';
import CheckRounded from '@mui/icons-material/CheckRounded';
import MoreHorizRounded from '@mui/icons-material/MoreHorizRounded';
import PriorityHighRounded from '@mui/icons-material/PriorityHighRounded';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { checks } from '@/core/proof/checks';
import { cellOf, type Quality } from '@/compute/keys';
import { setQuality, stopWork } from '@/compute/engineHandle';
import { isFresh } from '@/compute/useWork';
import { durationText } from '@/core/units/duration';
import { lengthText } from '@/core/units/length';
import { After, turns } from '@/ui/later';
import { ChoiceField } from '@/ui/common/fields';
import { WorkLeft } from '@/ui/common/Waiting';
import { Empty, Group, SheetHead } from '@/ui/common/SheetParts';
import { DowelsAmiss } from '@/ui/blank/DowelsAmiss';
import { useOpenJobLater, useWorkLater } from '@/ui/following';
import { CastingGroup } from './CastingGroup';
import { FitGroups } from './FitGroup';
import { PlayBar } from './PlayBar';
import { Ledger } from './Ledger';
import { StaysGroup } from './StaysGroup';
import { Told } from './Told';

export function ProofSheet() {
  const job = useOpenJobLater((s) => s.job)!;
  const proof = useWorkLater((w) => w.proof);
  const quality = useWorkLater((w) => w.quality);
  return (
    <>
      <SheetHead
        title="Proof"
        remark={
          proof
            ? proof.findings.length
              ? `${proof.findings.length} to look at`
              : proof.compared
                ? 'all checks pass'
                : 'being checked'
            : ''
        }
      />
      <Progress />
      <WorkLeft />
      {!job.cuts.length && (
        <Empty title="Nothing to prove yet">
          Add a cut first. Its program is then read back and cut here, before it is cut at the machine.
        </Empty>
      )}
      {proof && job.cuts.length > 0 && (
        <>
          <Group title="Watch it cut">
            <PlayBar />
            <Box sx={{ mt: 1.5 }}>
              <ChoiceField
                label="Quality of the proof"
                value={quality}
                options={(['quick', 'fine', 'finest'] as const).map((q) => ({
                  value: q,
                  label: `${{ quick: 'Quick', fine: 'Fine', finest: 'Finest' }[q]}, a height every ${lengthText(cellOf(job, q), job.unit, job.unit === 'mm' ? 2 : 4)}`,
                }))}
                onChange={(q) => setQuality(q as Quality)}
              />
            </Box>
          </Group>
          <Group title="Checks">
            <Box component="ul" aria-label="Checks" sx={{ listStyle: 'none', p: 0, m: 0, display: 'grid', gap: 1.1 }}>
              {checks.map((c) => {
                const found = proof.findings.filter((f) => f.check === c.id);
                const asking = c.late && !proof.compared && !found.length;
                return (
                  <Box component="li" key={c.id} sx={{ display: 'flex', gap: 1.1 }}>
                    <Box
                      sx={{
                        width: 20,
                        height: 20,
                        borderRadius: '50%',
                        flex: 'none',
                        display: 'grid',
                        placeItems: 'center',
                        bgcolor: found.length ? 'error.main' : 'var(--mui-palette-wash)',
                        color: found.length ? 'error.contrastText' : 'primary.main',
                        '& svg': { fontSize: 14 },
                      }}
                    >
                      {found.length ? (
                        <PriorityHighRounded titleAccess="Found something" />
                      ) : asking ? (
                        <MoreHorizRounded titleAccess="Being looked at" />
                      ) : (
                        <CheckRounded titleAccess="Passes" />
                      )}
                    </Box>
                    <Box sx={{ minWidth: 0 }}>
                      <Typography variant="body2" sx={{ fontWeight: found.length ? 600 : 450 }}>
                        {c.name}
                      </Typography>
                      {found.map((f) => (
                        <Told key={f.text} finding={f} />
                      ))}
                    </Box>
                  </Box>
                );
              })}
            </Box>
            <DowelsAmiss />
          </Group>
          <StaysGroup />
          <After turn={turns.below} once="fit">
            <FitGroups />
            <CastingGroup />
          </After>
          <After turn={turns.below} once="ledger">
            <Group title={`Machining time: ${durationText(proof.minutes)}`}>
              <Ledger />
            </Group>
          </After>
        </>
      )}
    </>
  );
}

/** How far the proof is; stands apart so that its ticking redraws nothing else. */
function Progress() {
  const job = useOpenJobLater((s) => s.job)!;
  const proving = useWorkLater((w) => w.proving);
  const planning = useWorkLater((w) => w.planning !== null);
  // Before the proof the paths of all cuts.
  const planned = useWorkLater((w) => {
    const on = job.cuts.filter((c) => c.enabled);
    const doneOf = (id: string) => w.planning?.[id]?.done ?? Number(isFresh(job, id, w));
    return on.reduce((sum, c) => sum + doneOf(c.id), 0) / Math.max(1, on.length);
  });
  if (proving === null && !planning) return null;
  return (
    <Box sx={{ px: 2, pb: 1.5, display: 'flex', alignItems: 'center', gap: 1.5 }}>
      <LinearProgress
        aria-label={proving !== null ? 'Proving' : 'Planning'}
        variant={proving !== null || planned > 0 ? 'determinate' : 'indeterminate'}
        value={(proving ?? planned) * 100}
        sx={{ flex: 1, borderRadius: 2 }}
      />
      <Button size="small" color="inherit" onClick={stopWork}>
        Stop working
      </Button>
    </Box>
  );
}
