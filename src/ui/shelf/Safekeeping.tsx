'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { useCallback, useEffect, useState, type ReactNode } from 'react';
import { lackingWords } from '@/store/files';
import { lastBackup, makeBackup, restoreBackup, type Restored } from '@/store/backup';
import { storageMessage } from '@/store/db';
import {
  allowFolder,
  chooseFolder,
  folderHere,
  folderMessage,
  foldersWork,
  leaveFolder,
  type Folder,
} from '@/store/folder';
import { derivedHere } from '@/compute/derived';
import { emptyKept } from '@/compute/engineHandle';
import { askToLast, bytesText, roomHere, type Room } from '@/store/room';
import { useKeeping } from '@/store/keeping';
import { secondWorks } from '@/store/second';
import { askForFiles, download } from '@/ui/actions/files';
import { tell } from '@/ui/actions/tell';
import { startNewer, useOffline } from '@/ui/offline/offline';
import { saysOf } from '@/core/units/says';

interface State {
  readonly room: Room | null;
  readonly backup: number;
  readonly folder: Folder | null;
  readonly results: { readonly size: number; readonly count: number };
  /** Whether there is a second copy. */
  readonly second: boolean;
}

const count = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;

export function restoredWords(r: Restored): string {
  const parts = [
    r.back && `${count(r.back, 'job')} put back`,
    r.there && `${r.there} already here`,
    r.beside && `${count(r.beside, 'job')} beside another version of it`,
    r.others &&
      `${count(r.others, 'cutter, machine, dialect, recipe or relief', 'cutters, machines, dialects, recipes and reliefs')} put back`,
  ].filter(Boolean);
  return `${parts.length ? parts.join(', ') : 'The backup holds nothing'}.${r.broken.map((b) => ` "${b.name}" could not be read: ${b.why}`).join('')}${r.lacking.length ? ` Jobs came without ${lackingWords(r.lacking)}.` : ''}`;
}

/** Backs everything up into one file, and says how that went. */
export async function backUp(progress?: (done: number) => void): Promise<void> {
  try {
    const { bytes, lacking } = await makeBackup(progress);
    download(`mirvak-${new Date().toISOString().slice(0, 10)}.mirvak-backup`, bytes, 'application/zip');
    if (lacking.length)
      tell(
        'error',
        `Everything is in one file but ${lackingWords(lacking)}: jobs need them, and they are not on this device.`,
      );
    else tell('success', 'Everything is in one file, with your downloads. Keep it on another disk.');
  } catch (e) {
    tell('error', storageMessage(e));
  }
}

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Box component="section" sx={{ py: 2, borderTop: '1px solid', borderColor: 'divider' }}>
      <Typography variant="h3" sx={{ mb: 0.5 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}
const row = { display: 'flex', gap: 1, flexWrap: 'wrap', mt: 1.25 } as const;

/** Where the work lies, whether it is safe there, and how to have it elsewhere too. */
export function Safekeeping({
  open,
  onClose,
  onChanged,
  ago,
}: {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly onChanged: () => void;
  readonly ago: (time: number) => string;
}) {
  const [now, setNow] = useState<State | null>(null);
  const [busy, setBusy] = useState<number | null>(null);
  const offline = useOffline();
  const onDevice = useKeeping((k) => k.keeping === 'device');
  const look = useCallback(
    () =>
      void Promise.all([roomHere(), lastBackup(), folderHere(), derivedHere(), secondWorks()]).then(
        ([room, backup, folder, results, second]) => setNow({ room, backup, folder, results, second }),
        () => {},
      ),
    [],
  );
  useEffect(() => {
    if (open) look();
  }, [open, look]);
  const work = (doing: Promise<unknown>, words: (e: unknown) => string = storageMessage) =>
    void doing
      .catch((e) => tell('error', saysOf(e, '') ? `The backup was not brought back. ${saysOf(e, '')}` : words(e)))
      .finally(() => {
        setBusy(null);
        look();
        onChanged();
      });
  const bringBack = () =>
    askForFiles('.mirvak-backup,.zip', false, ([file]) => {
      if (!file) return;
      setBusy(0);
      work(
        restoreBackup(file, setBusy).then((r) =>
          tell(r.broken.length || r.lacking.length ? 'error' : 'success', restoredWords(r)),
        ),
      );
    });
  const { room, backup, folder, results, second } = now ?? {
    room: null,
    backup: 0,
    folder: null,
    results: { size: 0, count: 0 },
    second: false,
  };
  return (
    <Dialog
      open={open}
      onClose={onClose}
      fullWidth
      maxWidth="sm"
      slotProps={{ paper: { 'aria-label': 'Safekeeping' } }}
    >
      <DialogContent>
        <Typography variant="h2" sx={{ mb: 2 }}>
          Safekeeping
        </Typography>
        {busy !== null && (
          <LinearProgress variant="determinate" value={100 * busy} aria-label="Progress" sx={{ mb: 1 }} />
        )}
        <Part title="On this device">
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {room
              ? `Mirvak uses ${bytesText(room.used)}; ${bytesText(room.left)} are left for it.`
              : 'The browser does not say how much room there is.'}{' '}
            {room?.lasting
              ? 'The browser keeps it until you clear it yourself.'
              : 'When the disk runs full, the browser may clear it without asking, unless it has promised not to.'}{' '}
            {onDevice &&
              second &&
              'A second copy of all work lies beside the browser\u2019s database, in case that breaks.'}
            {offline.kept && ' Mirvak itself is kept too: it opens without its server.'}
          </Typography>
          {offline.newer && (
            <Box sx={row}>
              <Button variant="contained" onClick={startNewer}>
                Start the newer Mirvak
              </Button>
            </Box>
          )}
          {room && !room.lasting && (
            <Box sx={row}>
              <Button
                variant="outlined"
                color="inherit"
                sx={{ borderColor: 'var(--mui-palette-line)' }}
                onClick={() =>
                  work(
                    askToLast().then((ok) =>
                      tell(
                        ok ? 'success' : 'info',
                        ok
                          ? 'The browser has promised to keep it.'
                          : 'The browser makes no promise yet. Bookmark Mirvak or install it and ask again, and back up meanwhile.',
                      ),
                    ),
                  )
                }
              >
                Ask the browser to keep it
              </Button>
            </Box>
          )}
          {results.count > 0 && (
            <>
              <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1.25 }}>
                {`Proofs of ${count(results.count, 'set-up')} are kept, so that jobs open with them: up to ${bytesText(results.size)}. They can be worked out again.`}
              </Typography>
              <Box sx={row}>
                <Button
                  variant="outlined"
                  color="inherit"
                  sx={{ borderColor: 'var(--mui-palette-line)' }}
                  onClick={() =>
                    work(emptyKept().then(() => tell('success', 'Kept proofs are gone. The jobs are as they were.')))
                  }
                >
                  Empty kept proofs
                </Button>
              </Box>
            </>
          )}
        </Part>
        <Part title="In a file">
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            All jobs with their fonts and pictures, the tool library, machines, dialects, recipes and reliefs, in one
            file. {backup ? `Last made ${ago(backup)}.` : 'None was made yet.'}
          </Typography>
          <Box sx={row}>
            <Button
              variant="contained"
              disabled={busy !== null}
              onClick={() => {
                setBusy(0);
                work(backUp(setBusy));
              }}
            >
              Back up everything
            </Button>
            <Button
              variant="outlined"
              color="inherit"
              disabled={busy !== null}
              onClick={bringBack}
              sx={{ borderColor: 'var(--mui-palette-line)' }}
            >
              Bring a backup back
            </Button>
          </Box>
          <Typography variant="caption" component="p" sx={{ color: 'text.secondary', mt: 1, mb: 0 }}>
            Bringing one back overwrites nothing: what differs comes beside it. The bin is not backed up.
          </Typography>
        </Part>
        <Part title="In a folder of yours">
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {!foldersWork()
              ? 'This browser does not let a page write to a folder.'
              : folder
                ? `Each job is also written to the folder "${folder.name}" soon after it is saved.`
                : 'Each job can also be written to a folder on your disk, soon after it is saved.'}
            {folder?.waiting && ' The browser wants to be asked again first.'}
          </Typography>
          {foldersWork() && (
            <Box sx={row}>
              {folder?.waiting && (
                <Button variant="contained" onClick={() => work(allowFolder(), folderMessage)}>
                  Ask again
                </Button>
              )}
              <Button
                variant="outlined"
                color="inherit"
                onClick={() => work(chooseFolder(), folderMessage)}
                sx={{ borderColor: 'var(--mui-palette-line)' }}
              >
                {folder ? 'Choose another' : 'Choose a folder'}
              </Button>
              {folder && (
                <Button color="inherit" onClick={() => work(leaveFolder())}>
                  Stop writing there
                </Button>
              )}
            </Box>
          )}
        </Part>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Done</Button>
      </DialogActions>
    </Dialog>
  );
}
