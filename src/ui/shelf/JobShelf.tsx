'use client';
import AddRounded from '@mui/icons-material/AddRounded';
import FileOpenOutlined from '@mui/icons-material/FileOpenOutlined';
import MoreHorizRounded from '@mui/icons-material/MoreHorizRounded';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Typography from '@mui/material/Typography';
import { useRouter } from 'next/navigation';
import { typeInto } from '@/ui/view';
import { useSnackbar } from 'notistack';
import { useCallback, useEffect, useRef, useState } from 'react';
import { materials } from '@/core/cutters/materials';
import { formatLength } from '@/core/units/length';
import { saysOf } from '@/core/units/says';
import { backupDue } from '@/store/backup';
import { firstBlank } from '@/store/keep';
import { onNews } from '@/store/channel';
import { storageMessage, type JobRow } from '@/store/db';
import {
  copyJob,
  createJob,
  deleteJob,
  emptyBin,
  importJob,
  listDeleted,
  listJobs,
  renameJob,
  restoreJob,
  seedDemoJobs,
  sweepDeleted,
} from '@/store/jobs';
import { lackingWords } from '@/store/files';
import { busyWith } from '@/ui/common/busy';
import { TextField } from '@/ui/common/fields';
import { exportVersion } from '@/ui/actions/files';
import { Mark } from '@/ui/shell/Mark';
import { fetchWorkbench } from '@/ui/shell/pieces';
import { PORTRAIT } from '@/ui/table/solid/portrait';
import { Bin } from './Bin';
import { HeldJobs } from './HeldJobs';
import { backUp, Safekeeping } from './Safekeeping';
import { paintPortraits } from './portraits';

const ago = (t: number): string => {
  const m = Math.round((Date.now() - t) / 60000);
  if (m < 1) return 'just now';
  if (m < 60) return `${m} min ago`;
  if (m < 1440) return `${Math.round(m / 60)} h ago`;
  return new Date(t).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });
};

/** What a job is made of, and how many set-ups that takes where it is more than one. */
function blankWords({ job }: JobRow): string {
  const { width, height, thickness, material } = firstBlank(job);
  const size = [width, height, thickness].map((v) => formatLength(v, job.unit)).join(' \u00d7 ');
  const setups = job.setups?.length > 1 ? ` \u00b7 ${job.setups.length} set-ups` : '';
  return `${size} ${job.unit} \u00b7 ${materials[material].name.toLowerCase()}${setups}`;
}

/** ms */
const REST = 1200;

export function JobShelf() {
  const router = useRouter();
  const { enqueueSnackbar, closeSnackbar } = useSnackbar();
  const [rows, setRows] = useState<JobRow[] | null>(null);
  const [trouble, setTrouble] = useState('');
  const [over, setOver] = useState(false);
  const [menu, setMenu] = useState<{ row: JobRow; at: HTMLElement } | null>(null);
  const [naming, setNaming] = useState<{ row: JobRow; name: string } | null>(null);
  const [keeping, setKeeping] = useState(false);
  const [due, setDue] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const [gone, setGone] = useState<JobRow[]>([]);
  const refresh = useCallback(async () => {
    const [here, deleted] = await Promise.all([listJobs(), listDeleted()]);
    setRows(here);
    setGone(deleted);
  }, []);
  useEffect(() => {
    document.title = 'Job shelf \u00b7 Mirvak';
    void (async () => {
      try {
        await sweepDeleted();
        await seedDemoJobs();
        await refresh();
        setDue(await backupDue());
      } catch (e) {
        setRows([]);
        setTrouble(storageMessage(e));
      }
      fetchWorkbench();
    })();
    const again = () => void refresh().catch(() => {});
    window.addEventListener('focus', again);
    const deaf = onNews('job', again);
    return () => {
      window.removeEventListener('focus', again);
      deaf();
    };
  }, [refresh]);

  // Once the shelf has stood still for a moment, jobs that have no picture yet get theirs; each is tried once.
  const painting = useRef<AbortController | null>(null);
  const tried = useRef(new Set<string>());
  useEffect(() => {
    const bare = rows?.filter((r) => !r.picture && !tried.current.has(r.id)) ?? [];
    if (!bare.length || painting.current) return;
    const leave = (painting.current = new AbortController());
    setTimeout(() => {
      if (leave.signal.aborted) return;
      for (const r of bare) tried.current.add(r.id);
      void paintPortraits(bare, leave.signal, () => void refresh()).finally(() => {
        painting.current = null;
        if (!leave.signal.aborted) void refresh();
      });
    }, REST);
  }, [rows, refresh]);
  useEffect(
    () => () => {
      painting.current?.abort();
      painting.current = null;
    },
    [],
  );

  const take = async (files: FileList | null) => {
    for (const f of files ?? []) {
      try {
        const leave = new AbortController();
        const { lacking } = await busyWith(
          `Reading ${f.name}\u2026`,
          () => leave.abort(),
          () => importJob(f, leave.signal),
        );
        enqueueSnackbar(`"${f.name}" is on the shelf.`, { variant: 'success' });
        setTrouble(
          lacking.length
            ? `"${f.name}" came without ${lackingWords(lacking)}, or damaged. Open the job and add it again, or export the job anew where it was made.`
            : '',
        );
      } catch (e) {
        setTrouble(`"${f.name}" was not imported. ${saysOf(e, storageMessage(e))}`);
      }
    }
    await refresh();
  };
  /** What is done to the shelf, and what is said where it fails. */
  const doing = (work: Promise<unknown>): Promise<boolean> =>
    work.then(refresh).then(
      () => true,
      (e) => (setTrouble(storageMessage(e)), false),
    );
  const remove = async (row: JobRow) => {
    if (!(await doing(deleteJob(row.id)))) return;
    enqueueSnackbar(`"${row.name}" is deleted.`, {
      action: (key) => (
        <Button
          color="inherit"
          onClick={() => {
            closeSnackbar(key);
            void doing(restoreJob(row.id));
          }}
        >
          Undo
        </Button>
      ),
    });
  };
  const startNew = () =>
    void createJob()
      .then((id) => {
        typeInto(id);
        router.push(`/job/${id}`);
      })
      .catch((e) => setTrouble(storageMessage(e)));

  return (
    <Box
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        void take(e.dataTransfer.files);
      }}
      sx={{
        height: 'var(--page-height, 100vh)',
        overflowY: 'auto',
        outline: over ? '3px dashed var(--mui-palette-primary-main)' : 'none',
        outlineOffset: -10,
      }}
    >
      <Box component="main" sx={{ maxWidth: 1120, mx: 'auto', px: 4, py: 4 }}>
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mb: 1 }}>
          <Mark size={38} />
          <Typography variant="h1">Job shelf</Typography>
          <Box sx={{ flex: 1 }} />
          <Button color="inherit" onClick={() => setKeeping(true)}>
            Safekeeping
          </Button>
          <Button color="inherit" onClick={() => router.push('/library')}>
            Tool library
          </Button>
          <Button
            variant="outlined"
            color="inherit"
            startIcon={<FileOpenOutlined />}
            onClick={() => file.current?.click()}
            sx={{ borderColor: 'var(--mui-palette-line)' }}
          >
            Import a job
          </Button>
          <Button variant="contained" startIcon={<AddRounded />} onClick={startNew}>
            New job
          </Button>
          <input
            ref={file}
            type="file"
            hidden
            multiple
            accept=".mirvak,.json"
            aria-label="Job file"
            onChange={(e) => void take(e.target.files).then(() => (e.target.value = ''))}
          />
        </Box>
        <Typography sx={{ color: 'text.secondary', mb: 3 }}>
          Everything stays on this device. Drop a .mirvak file anywhere to bring a job in.
        </Typography>
        {trouble && (
          <Alert severity="error" onClose={() => setTrouble('')} sx={{ mb: 3 }}>
            {trouble}
          </Alert>
        )}
        <HeldJobs />
        {due && (
          <Alert
            severity="info"
            sx={{ mb: 3 }}
            onClose={() => setDue(false)}
            action={
              <>
                <Button color="inherit" onClick={() => void backUp().then(() => setDue(false))}>
                  Back up everything
                </Button>
                <Button color="inherit" onClick={() => setDue(false)}>
                  Later
                </Button>
              </>
            }
          >
            There is work on this device that has not been backed up for two weeks.
          </Alert>
        )}
        {rows?.length === 0 && !trouble && (
          <Box
            sx={{
              border: '1px dashed',
              borderColor: 'var(--mui-palette-line)',
              borderRadius: 3,
              p: 5,
              textAlign: 'center',
            }}
          >
            <Typography variant="h2">The shelf is empty</Typography>
            <Typography sx={{ color: 'text.secondary', my: 1 }}>
              Start a new job, or drop a .mirvak file here.
            </Typography>
            <Button variant="contained" startIcon={<AddRounded />} onClick={startNew}>
              New job
            </Button>
          </Box>
        )}
        <Box
          component="ul"
          aria-label="Jobs"
          sx={{
            listStyle: 'none',
            p: 0,
            m: 0,
            display: 'grid',
            gridTemplateColumns: 'repeat(auto-fill, minmax(300px, 1fr))',
            gap: 2.5,
          }}
        >
          {rows?.map((row) => (
            <Box
              component="li"
              key={row.id}
              sx={{
                bgcolor: 'background.paper',
                border: '1px solid',
                borderColor: 'divider',
                borderRadius: 3,
                overflow: 'hidden',
                transition: 'border-color .12s',
                '&:hover': { borderColor: 'primary.main' },
              }}
            >
              <ButtonBase
                aria-label={`Open ${row.name}`}
                onClick={() => router.push(`/job/${row.id}`)}
                sx={{
                  width: '100%',
                  aspectRatio: `${PORTRAIT.width} / ${PORTRAIT.height}`,
                  display: 'block',
                  bgcolor: 'var(--mui-palette-faint)',
                }}
              >
                {row.picture ? (
                  <Box
                    component="img"
                    src={row.picture}
                    alt=""
                    sx={{ display: 'block', width: '100%', height: '100%', objectFit: 'contain' }}
                  />
                ) : (
                  <Blank row={row} />
                )}
              </ButtonBase>
              <Box sx={{ display: 'flex', p: 2, pt: 1.5, alignItems: 'flex-start' }}>
                <Box sx={{ flex: 1, minWidth: 0 }}>
                  <Typography variant="h3" component="h2" noWrap sx={{ fontSize: 15 }}>
                    {row.name}
                  </Typography>
                  <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                    {blankWords(row)} {'\u00b7'} {ago(row.updated)}
                  </Typography>
                </Box>
                <IconButton
                  aria-label={`More for ${row.name}`}
                  onClick={(e) => setMenu({ row, at: e.currentTarget })}
                  sx={{ mr: -1, mt: -0.5 }}
                >
                  <MoreHorizRounded />
                </IconButton>
              </Box>
            </Box>
          ))}
        </Box>
        <Safekeeping
          open={keeping}
          ago={ago}
          onClose={() => setKeeping(false)}
          onChanged={() => void refresh().catch(() => {})}
        />
        <Bin
          rows={gone}
          ago={ago}
          onPutBack={(row) => void doing(restoreJob(row.id))}
          onEmpty={() => void doing(emptyBin())}
        />
      </Box>
      <Menu open={!!menu} anchorEl={menu?.at} onClose={() => setMenu(null)} onClick={() => setMenu(null)}>
        <MenuItem onClick={() => setNaming({ row: menu!.row, name: menu!.row.name })}>Rename</MenuItem>
        <MenuItem onClick={() => void doing(copyJob(menu!.row.id))}>Copy</MenuItem>
        <MenuItem onClick={() => void doing(exportVersion(menu!.row.id, undefined, menu!.row.name))}>
          Export to a file
        </MenuItem>
        <MenuItem onClick={() => void remove(menu!.row)} sx={{ color: 'error.main' }}>
          Delete
        </MenuItem>
      </Menu>
      <Dialog
        open={!!naming}
        onClose={() => setNaming(null)}
        fullWidth
        maxWidth="xs"
        slotProps={{ paper: { 'aria-label': 'Rename the job' } }}
      >
        <DialogContent>
          {naming && (
            <TextField
              label="Name of the job"
              value={naming.name}
              onChange={(name) => setNaming({ ...naming, name })}
            />
          )}
        </DialogContent>
        <DialogActions>
          <Button color="inherit" onClick={() => setNaming(null)}>
            Cancel
          </Button>
          <Button
            variant="contained"
            disabled={!naming?.name.trim()}
            onClick={() => void doing(renameJob(naming!.row.id, naming!.name.trim())).then(() => setNaming(null))}
          >
            Rename
          </Button>
        </DialogActions>
      </Dialog>
    </Box>
  );
}

/** Before a job has been proven once: its blank, to scale. */
function Blank({ row }: { row: JobRow }) {
  const { width, height, material } = firstBlank(row.job);
  const k = Math.min(230 / width, 120 / height);
  return (
    <svg
      width="100%"
      height="100%"
      style={{ display: 'block' }}
      viewBox="0 0 300 178"
      preserveAspectRatio="xMidYMid meet"
      aria-hidden="true"
    >
      <rect
        x={150 - (width * k) / 2}
        y={89 - (height * k) / 2}
        width={width * k}
        height={height * k}
        rx="3"
        fill={materials[material].face}
        opacity="0.75"
      />
    </svg>
  );
}
