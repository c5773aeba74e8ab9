'use client';
import ArrowDownwardRounded from '@mui/icons-material/ArrowDownwardRounded';
import ArrowUpwardRounded from '@mui/icons-material/ArrowUpwardRounded';
import DownloadRounded from '@mui/icons-material/DownloadRounded';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { lengthOf } from '@/core/program/text';
import { isUpToDate } from '@/compute/useWork';
import { folderOf, slug, zeroText } from '@/core/pipeline/programs';
import { After, turns } from '@/ui/later';
import { moveFile } from '@/ui/actions/edits';
import { saveWritten } from '@/ui/actions/saving';
import { WorkLeft, waitingWords } from '@/ui/common/Waiting';
import { Empty, Group, SheetHead } from '@/ui/common/SheetParts';
import { useView } from '@/ui/view';
import { useOpenJobLater, useViewLater, useWorkLater } from '@/ui/following';
import { AllSetups } from './AllSetups';
import { DialectGroup } from './DialectGroup';
import { MachineGroup } from './MachineGroup';
import { ProgramText } from './ProgramText';
import { ToolsGroup } from './ToolsGroup';

/** Files change places with their cuts; two that share a cut cannot. */
const canSwap = (a: { cuts: readonly string[] }, b: { cuts: readonly string[] } | undefined): boolean =>
  !!b && !a.cuts.some((c) => b.cuts.includes(c));

export function RunSheet() {
  const job = useOpenJobLater((s) => s.job)!;
  const proof = useWorkLater((w) => w.proof);
  const whole = useOpenJobLater((s) => s.whole)!;
  const waiting = useWorkLater(waitingWords);
  const stale = useWorkLater((w) => !isUpToDate(whole, job.at.id, w));
  const open = useViewLater((v) => v.file);
  const file = proof?.files.find((f) => f.name === open) ?? proof?.files[0];
  return (
    <>
      <SheetHead
        title="Run"
        remark={proof?.files.length ? `${proof.files.length} ${proof.files.length === 1 ? 'program' : 'programs'}` : ''}
      />
      <WorkLeft />
      {!proof?.files.length && (
        <Empty title="No program yet">
          {job.cuts.length ? 'Programs appear here as soon as the cuts are worked out.' : 'Add a cut first.'}
        </Empty>
      )}
      {!!proof?.files.length && (
        <Group title={job.at.only ? 'Programs' : `Programs of "${job.at.name}"`}>
          {proof.findings.length > 0 && (
            <Typography variant="body2" sx={{ color: 'error.main', mb: 1 }}>
              The proof found {proof.findings.length} {proof.findings.length === 1 ? 'thing' : 'things'}. Look under
              Proof before you run these.
            </Typography>
          )}
          <Box component="ul" aria-label="Program files" sx={{ listStyle: 'none', p: 0, m: 0, mb: 1.25 }}>
            {proof.files.map((f, i) => (
              <Box
                component="li"
                key={f.name}
                sx={{
                  display: 'flex',
                  alignItems: 'center',
                  gap: 0.5,
                  borderRadius: 1.5,
                  px: 1,
                  bgcolor: f === file ? 'var(--mui-palette-wash)' : undefined,
                }}
              >
                <Button
                  color="inherit"
                  aria-label={f.name}
                  title={f.name}
                  onClick={() => useView.setState({ file: f.name })}
                  sx={{
                    flex: 1,
                    justifyContent: 'flex-start',
                    px: 0,
                    minWidth: 0,
                    fontFamily: '"IBM Plex Mono"',
                    fontSize: 12,
                    textAlign: 'left',
                  }}
                >
                  <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
                    {proof.files.length > 1 ? f.name.replace(`${slug(job.name)}-`, '') : f.name}
                  </Box>
                </Button>
                <Typography variant="caption" sx={{ color: 'text.secondary' }}>
                  {Math.max(1, Math.round(lengthOf(f.chunks) / 1024))} kB
                </Typography>
                {proof.files.length > 1 &&
                  ([-1, 1] as const).map((step) => (
                    <Tooltip key={step} title={step < 0 ? 'Run it earlier' : 'Run it later'}>
                      <span>
                        <IconButton
                          size="small"
                          disabled={stale || !canSwap(proof.files[i], proof.files[i + step])}
                          aria-label={`Run ${f.name} ${step < 0 ? 'earlier' : 'later'}`}
                          onClick={() =>
                            moveFile(proof.files[step < 0 ? i - 1 : i].cuts, proof.files[step < 0 ? i : i + 1].cuts)
                          }
                        >
                          {step < 0 ? (
                            <ArrowUpwardRounded sx={{ fontSize: 16 }} />
                          ) : (
                            <ArrowDownwardRounded sx={{ fontSize: 16 }} />
                          )}
                        </IconButton>
                      </span>
                    </Tooltip>
                  ))}
                <Tooltip title="Save this program">
                  <span>
                    <IconButton
                      size="small"
                      disabled={stale}
                      aria-label={`Save ${f.name}`}
                      onClick={() => void saveWritten(f.name, [f], false)}
                    >
                      <DownloadRounded fontSize="small" />
                    </IconButton>
                  </span>
                </Tooltip>
              </Box>
            ))}
          </Box>
          <Button
            fullWidth
            variant="contained"
            disabled={stale}
            startIcon={<DownloadRounded />}
            onClick={() => {
              if (proof.files.length === 1) void saveWritten(proof.files[0].name, proof.files, false);
              else
                void saveWritten(
                  `${slug(job.name)}${job.at.only ? '' : `-${folderOf(job)}`}-programs.zip`,
                  proof.files,
                  true,
                );
            }}
          >
            {stale ? waiting : proof.files.length === 1 ? 'Save the program' : 'Save all programs'}
          </Button>
          <Typography variant="caption" component="p" sx={{ color: 'text.secondary', mt: 1, mb: 0 }}>
            Zero: {zeroText(job)}.
          </Typography>
        </Group>
      )}
      <After turn={turns.fields} once="programs of all">
        <AllSetups />
      </After>
      <After turn={turns.fields} once="dialect">
        <DialectGroup />
      </After>
      <After turn={turns.below} once="tools of a program">
        {!!proof?.files.length && <ToolsGroup />}
      </After>
      <After turn={turns.below} once="program text">
        {file && (
          <Group title={file.name}>
            <ProgramText key={file.name} file={file.name} chunks={file.chunks} breaks={file.breaks} />
          </Group>
        )}
      </After>
      <After turn={turns.below} once="machine">
        <MachineGroup />
      </After>
    </>
  );
}
