'use client';
import { closestCenter, DndContext, PointerSensor, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { horizontalListSortingStrategy, SortableContext, useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import AddRounded from '@mui/icons-material/AddRounded';
import MoreVertRounded from '@mui/icons-material/MoreVertRounded';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import Divider from '@mui/material/Divider';
import IconButton from '@mui/material/IconButton';
import ListItemText from '@mui/material/ListItemText';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Tab, { type TabProps } from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import TextField from '@mui/material/TextField';
import Tooltip from '@mui/material/Tooltip';
import { useState } from 'react';
import { isUpToDate, type SeenWork } from '@/compute/useWork';
import type { Job } from '@/core/job/job';
import { oneSetup, setupWith } from '@/core/job/oneSetup';
import { whyNotAt, type Beginning } from '@/core/job/allSetups';
import { durationText } from '@/core/units/duration';
import { useOpenJob } from '@/store/openJob';
import { addSetup, copySetup, deleteSetup, placeSetup, renameSetup } from '@/ui/actions/setups';
import { waitingWords } from '@/ui/common/Waiting';
import { readOut } from '@/ui/common/fields';
import { useOpenJobLater, useWorkLater } from '@/ui/following';
import { SetupPicture } from './SetupPicture';

/** How a set-up stands, in a few words, and whether something was found. */
function stateOf(whole: Job, id: string, all: SeenWork): { readonly words: string; readonly bad: boolean } {
  const job = oneSetup(whole, id);
  const work = all.setups[id];
  const cuts = job.cuts.filter((c) => c.enabled);
  if (!cuts.length) return { words: job.items.length || job.relief.forms.length ? 'No cuts yet' : 'Empty', bad: false };
  if (!work?.proof || !isUpToDate(whole, id, all)) return { words: waitingWords(all), bad: !!all.error };
  const n = work.proof.findings.length;
  if (n) return { words: `${n} ${n === 1 ? 'finding' : 'findings'}`, bad: true };
  return { words: durationText(work.proof.minutes), bad: false };
}

const beginnings: readonly { readonly begins: Beginning; readonly name: string; readonly what: string }[] = [
  { begins: 'y', name: 'The other face, turned left to right', what: 'The same blank, turned over about Y' },
  { begins: 'x', name: 'The other face, turned front to back', what: 'The same blank, turned over about X' },
  { begins: 'none', name: 'The same face again', what: 'Goes on with what this set-up leaves' },
  { begins: 'blank', name: 'Another blank', what: 'A piece of its own, uncut' },
];

/** The set-ups of a job: which there are, how each stands, and which one the window shows. */
export function SetupTabs() {
  // Only what the bar itself is made of: the window is laid out anew each time it is drawn.
  const ids = useOpenJobLater((s) => s.whole?.setups.map((q) => q.id).join(' '));
  const shown = useOpenJobLater((s) => s.whole && setupWith(s.whole, s.shownId).id);
  const name = useOpenJobLater((s) => s.whole && setupWith(s.whole, s.shownId).name);
  const [adding, setAdding] = useState<HTMLElement | null>(null);
  const [more, setMore] = useState<HTMLElement | null>(null);
  const [naming, setNaming] = useState(false);
  if (!ids || !shown) return null;
  return (
    <Box sx={{ flex: 1, minWidth: 0, display: 'flex', alignItems: 'center', height: '100%' }}>
      <Bar ids={ids} shown={shown} />
      <Tooltip title={`More for "${name}"`}>
        <IconButton size="small" aria-label={`More for set-up ${name}`} onClick={(e) => setMore(e.currentTarget)}>
          <MoreVertRounded fontSize="small" />
        </IconButton>
      </Tooltip>
      <Tooltip title="Add a set-up">
        <IconButton size="small" aria-label="Add a set-up" onClick={(e) => setAdding(e.currentTarget)}>
          <AddRounded fontSize="small" />
        </IconButton>
      </Tooltip>
      <Menu anchorEl={adding} open={!!adding} onClose={() => setAdding(null)}>
        {beginnings.map(({ begins, name, what }) => (
          <MenuItem key={begins} onClick={() => (setAdding(null), addSetup(begins))}>
            <ListItemText primary={name} secondary={what} />
          </MenuItem>
        ))}
      </Menu>
      {more && <MoreMenu anchor={more} id={shown} onClose={() => setMore(null)} onName={() => setNaming(true)} />}
      {naming && <NameDialog id={shown} onClose={() => setNaming(false)} />}
    </Box>
  );
}

function Bar({ ids, shown }: { readonly ids: string; readonly shown: string }) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const list = ids.split(' ');
  const end = ({ active, over }: DragEndEvent) => {
    if (over) placeSetup(String(active.id), list.indexOf(String(over.id)));
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={end}>
      <SortableContext items={list} strategy={horizontalListSortingStrategy}>
        <Tabs
          value={shown}
          onChange={(_, id: string) => useOpenJob.getState().show(id)}
          aria-label="Set-ups"
          variant="scrollable"
          scrollButtons="auto"
          selectionFollowsFocus
          sx={{ minHeight: 52, minWidth: 0, '& .MuiTabs-indicator': { height: 3, borderRadius: '3px 3px 0 0' } }}
        >
          {list.map((id) => (
            <DraggedTab
              key={id}
              value={id}
              icon={<SetupPicture id={id} />}
              iconPosition="start"
              sx={{
                minHeight: 52,
                px: 1.25,
                py: 0,
                gap: 1,
                textTransform: 'none',
                textAlign: 'left',
                maxWidth: 190,
                justifyContent: 'flex-start',
              }}
              label={<SetupLabel id={id} />}
            />
          ))}
        </Tabs>
      </SortableContext>
    </DndContext>
  );
}

/** A set-up's name, and below it how it stands. */
function SetupLabel({ id }: { readonly id: string }) {
  const whole = useOpenJobLater((s) => s.whole);
  const words = useWorkLater((w) => (whole ? stateOf(whole, id, w).words : ''));
  const bad = useWorkLater((w) => !!whole && stateOf(whole, id, w).bad);
  return (
    <Box sx={{ minWidth: 0 }}>
      <Box
        sx={{
          fontSize: 13,
          fontWeight: 600,
          lineHeight: 1.25,
          overflow: 'hidden',
          textOverflow: 'ellipsis',
          whiteSpace: 'nowrap',
          color: 'text.primary',
        }}
      >
        {whole && setupWith(whole, id).name}
      </Box>
      <Box component="span" sx={readOut}>
        ,{' '}
      </Box>
      <Box
        sx={{
          fontSize: 11.5,
          lineHeight: 1.25,
          whiteSpace: 'nowrap',
          color: bad ? 'error.main' : 'text.secondary',
        }}
      >
        {words}
      </Box>
    </Box>
  );
}

/** A tab that can be dragged along the bar; by keyboard its menu moves it. */
function DraggedTab(props: TabProps & { readonly value: string }) {
  const { setNodeRef, listeners, transform, transition, isDragging } = useSortable({ id: props.value });
  const style = {
    transform: CSS.Translate.toString(transform),
    transition,
    touchAction: 'manipulation',
    zIndex: isDragging ? 1 : undefined,
  };
  return <Tab {...props} ref={setNodeRef} style={style} {...(listeners as Pick<TabProps, 'onPointerDown'>)} />;
}

function MoreMenu({
  anchor,
  id,
  onClose,
  onName,
}: {
  readonly anchor: HTMLElement;
  readonly id: string;
  readonly onClose: () => void;
  readonly onName: () => void;
}) {
  const job = useOpenJobLater((s) => s.whole);
  if (!job) return null;
  const setup = setupWith(job, id);
  const run = (work: () => void) => () => {
    onClose();
    work();
  };
  const move = (step: -1 | 1, words: string) => {
    const to = job.setups.indexOf(setup) + step;
    const why = whyNotAt(job, id, to);
    return (
      <MenuItem disabled={!!why} onClick={run(() => placeSetup(id, to))}>
        <ListItemText primary={words} secondary={why} />
      </MenuItem>
    );
  };
  return (
    <Menu anchorEl={anchor} open onClose={onClose}>
      <MenuItem onClick={run(onName)}>Rename</MenuItem>
      <MenuItem onClick={run(() => copySetup(id))}>Copy</MenuItem>
      {move(-1, 'Run earlier')}
      {move(1, 'Run later')}
      <Divider />
      <MenuItem disabled={job.setups.length === 1} onClick={run(() => deleteSetup(id))}>
        <ListItemText primary="Delete" secondary={job.setups.length === 1 ? 'A job has at least one.' : null} />
      </MenuItem>
    </Menu>
  );
}

function NameDialog({ id, onClose }: { readonly id: string; readonly onClose: () => void }) {
  const setup = useOpenJobLater((s) => s.whole && setupWith(s.whole, id));
  const [name, setName] = useState<string | null>(null);
  const done = () => {
    const n = name?.trim();
    if (setup && n && n !== setup.name) renameSetup(setup.id, n);
    setName(null);
    onClose();
  };
  return (
    <Dialog
      open={!!setup}
      onClose={done}
      fullWidth
      maxWidth="xs"
      slotProps={{ paper: { 'aria-label': 'Rename set-up' } }}
    >
      <DialogContent>
        <TextField
          autoFocus
          fullWidth
          label="Name of the set-up"
          value={name ?? setup?.name ?? ''}
          slotProps={{ htmlInput: { maxLength: 200 } }}
          onChange={(e) => setName(e.target.value)}
          onFocus={(e) => e.target.select()}
          onKeyDown={(e) => {
            if (e.key !== 'Enter') return;
            // Else the same key presses the button that gets the focus back.
            e.preventDefault();
            done();
          }}
        />
      </DialogContent>
      <DialogActions>
        <Button onClick={done}>Done</Button>
      </DialogActions>
    </Dialog>
  );
}
