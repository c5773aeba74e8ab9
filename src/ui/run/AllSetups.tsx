'use client';
import DownloadRounded from '@mui/icons-material/DownloadRounded';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { isUpToDate } from '@/compute/useWork';
import { eachSetup } from '@/core/job/oneSetup';
import { folderOf, slug } from '@/core/pipeline/programs';
import { durationText } from '@/core/units/duration';
import { saveWritten } from '@/ui/actions/saving';
import { waitingWords } from '@/ui/common/Waiting';
import { Group } from '@/ui/common/SheetParts';
import { useOpenJobLater, useWorkLater } from '@/ui/following';

/** Where a job has several set-ups: their programs one after the other, as they are run, and all of them in one archive. */
export function AllSetups() {
  const { whole, shownId, show } = useOpenJobLater((s) => s);
  const work = useWorkLater((w) => w);
  const { setups } = work;
  if (!whole || whole.setups.length < 2) return null;
  const all = eachSetup(whole);
  const cut = all.filter((s) => s.cuts.some((c) => c.enabled));
  const stale = cut.some((s) => !isUpToDate(whole, s.at.id, work));
  const minutes = cut.reduce((n, s) => n + (setups[s.at.id]?.proof?.minutes ?? 0), 0);
  return (
    <Group title="All set-ups">
      <Box component="ol" aria-label="Set-ups as they are run" sx={{ listStyle: 'none', p: 0, m: 0, mb: 1.25 }}>
        {all.map((s) => {
          const proof = setups[s.at.id]?.proof;
          const n = proof?.findings.length ?? 0;
          const state = !cut.includes(s)
            ? 'nothing to cut'
            : !isUpToDate(whole, s.at.id, work)
              ? 'working\u2026'
              : `${proof!.files.length} ${proof!.files.length === 1 ? 'program' : 'programs'}, ${durationText(proof!.minutes)}`;
          return (
            <Box component="li" key={s.at.id} sx={{ py: 0.5 }}>
              <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
                <Button
                  color="inherit"
                  aria-current={s.at.id === shownId}
                  onClick={() => show(s.at.id)}
                  sx={{ px: 0, minWidth: 0, fontWeight: 600 }}
                >
                  {s.at.number}. {s.at.name}
                </Button>
                <Typography variant="caption" sx={{ color: n ? 'error.main' : 'text.secondary', ml: 'auto' }}>
                  {state}
                  {n > 0 && `, ${n} ${n === 1 ? 'finding' : 'findings'}`}
                </Typography>
              </Box>
              {s.at.id !== shownId &&
                proof?.files.map((f) => (
                  <Typography
                    key={f.name}
                    variant="caption"
                    component="p"
                    sx={{
                      m: 0,
                      fontFamily: '"IBM Plex Mono"',
                      color: 'text.secondary',
                      overflow: 'hidden',
                      textOverflow: 'ellipsis',
                      whiteSpace: 'nowrap',
                    }}
                  >
                    {f.name}
                  </Typography>
                ))}
            </Box>
          );
        })}
      </Box>
      <Button
        fullWidth
        variant="outlined"
        color="inherit"
        disabled={stale || !cut.length}
        startIcon={<DownloadRounded />}
        onClick={() =>
          void saveWritten(
            `${slug(whole.name)}-programs.zip`,
            cut.flatMap((s) =>
              setups[s.at.id].proof!.files.map((f) => ({ name: `${folderOf(s)}/${f.name}`, chunks: f.chunks })),
            ),
            true,
          )
        }
        sx={{ borderColor: 'var(--mui-palette-line)' }}
      >
        {stale ? waitingWords(work) : `Save the programs of all set-ups (${durationText(minutes)})`}
      </Button>
    </Group>
  );
}
