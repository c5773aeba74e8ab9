'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useRouter } from 'next/navigation';
import { memo, useEffect, useState } from 'react';
import { bringOwnFonts } from '@/compute/fonts';
import { holdWork, setJob } from '@/compute/engineHandle';
import { FontError } from '@/core/lettering/font';
import { assetsOf } from '@/core/job/assets';
import { saysOf } from '@/core/units/says';
import { bringFilesOf } from '@/store/reliefFiles';
import { storageMessage } from '@/store/db';
import { fontFiles, fontFilesOf } from '@/store/ownFonts';
import { After, turns, whenComplete } from '@/ui/later';
import { formKindOf } from '@/core/relief/registry';
import type { OneSetup } from '@/core/job/job';
import { useOpenJob, type OpenJob } from '@/store/openJob';
import { leaveField, onShortcut } from '@/ui/actions/registry';
import { watchLinks } from '@/ui/actions/links';
import { onPaste } from '@/ui/actions/drawingFiles';
import { tell } from '@/ui/actions/tell';
import { ArtworkSheet } from '@/ui/artwork/ArtworkSheet';
import { UnitQuestion } from '@/ui/artwork/UnitQuestion';
import { BlankSheet } from '@/ui/blank/BlankSheet';
import { LinkMenu } from '@/ui/artwork/LinkMenu';
import { CutAsMenu } from '@/ui/cuts/CutAsMenu';
import { CutsSheet } from '@/ui/cuts/CutsSheet';
import { LibraryDrawer } from '@/ui/library/LibraryDrawer';
import { useLibrary } from '@/ui/library/useLibrary';
import { ProofSheet } from '@/ui/proof/ProofSheet';
import { ReliefSheet } from '@/ui/relief/ReliefSheet';
import { RunSheet } from '@/ui/run/RunSheet';
import { Guarded } from '@/ui/common/Guarded';
import { Split, type Part } from '@/ui/common/Split';
import { followed, levelLine } from '@/ui/section/line';
import { leaveSolidSeat } from '@/ui/table/solid/seat';
import { Table } from '@/ui/table/Table';
import { TableMenu } from '@/ui/table/TableMenu';
import { setView, useView } from '@/ui/view';
import { InlayDialog } from '@/ui/artwork/InlayDialog';
import { MouldDialog } from '@/ui/artwork/MouldDialog';
import { useOpenJobLater, useViewLater } from '@/ui/following';
import { CommandList } from './CommandList';
import { Opening } from './Opening';
import { Rail } from './Rail';
import { SaveTrouble } from './SaveTrouble';
import { ShortcutSheet } from './ShortcutSheet';
import { BAR, TopBar } from './TopBar';

// Each part follows what it shows by itself: a change of the job that does not concern one costs it nothing.
const sheets = {
  blank: memo(BlankSheet),
  artwork: memo(ArtworkSheet),
  relief: memo(ReliefSheet),
  cuts: memo(CutsSheet),
  proof: memo(ProofSheet),
  run: memo(RunSheet),
};
const Bar = memo(TopBar);
const Stages = memo(Rail);
const WorkTable = memo(Table);
const Around = memo(function Around() {
  return (
    <After turn={turns.around}>
      <CommandList />
      <ShortcutSheet />
      <UnitQuestion />
      <InlayDialog />
      <MouldDialog />
      <CutAsMenu />
      <LinkMenu />
      <TableMenu />
      <Guarded part="The tool library">
        <LibraryDrawer />
      </Guarded>
    </After>
  );
});

/** Closes the open job; where it could not be saved, says what became of it. */
function leaveJob(): void {
  const name = useOpenJob.getState().job?.name;
  void useOpenJob
    .getState()
    .close()
    .then((as) => {
      if (as === 'copy')
        tell(
          'info',
          `Your version of "${name}" was not saved over the other one: it is on the shelf as "${name} (my version)".`,
        );
      if (as === 'held')
        tell(
          'error',
          `"${name}" could not be saved. What you did is kept in this window: open the job again, or export it from the shelf, before you close the window.`,
        );
    });
}

/** What the window shows of a set-up at first. The section starts through the lettering, where there is something to see. */
const viewOf = (j: OneSetup) => ({
  picked: [],
  alsoCuts: [],
  cutId: j.cuts[0]?.id ?? null,
  // Not a brush: a press on the plan would draw.
  formId: j.relief.forms.findLast((f) => !formKindOf(f.kind).brushed)?.id ?? null,
  pinning: false,
  pins: [],
  section: levelLine(j.blank, j.items.find((i) => i.kind === 'lettering')?.y),
  sectionAt: null,
  marked: null,
  play: null,
  file: null,
  lit: null,
  gauged: [],
});

/** The section's line follows a blank that changes, whether it is to be seen or not. */
const follow = (before: OneSetup['blank'], now: OneSetup['blank']) => {
  const { section } = useView.getState();
  if (section && (before.width !== now.width || before.height !== now.height))
    setView({ section: followed(section, before, now) });
};

/** No longer than so does the work on a job wait for its window, ms. */
const PATIENCE_MS = 1500;

export function Workbench({ id }: { id: string }) {
  const openId = useOpenJobLater((s) => s.job && s.id);
  const stage = useViewLater((v) => v.stage);
  const [trouble, setTrouble] = useState('');
  const narrow = useMediaQuery('(max-width: 900px)');
  const router = useRouter();
  useEffect(() => {
    let live = true;
    const { load } = useOpenJob.getState();
    setView({ picked: [], cutId: null, section: null, marked: null, play: null, file: null });
    fontFilesOf(id)
      .then(bringOwnFonts)
      .then(async (wrong) => {
        const found = await load(id);
        const opened = useOpenJob.getState().job;
        for (const f of opened ? assetsOf(opened, 'font') : [])
          if (wrong[f.id]) tell('error', new FontError(f.name, wrong[f.id]).message);
        return found;
      })
      .then((found) => {
        if (!live) return;
        if (!found) setTrouble('This job is not on this device. It may have been deleted.');
        else {
          const j = useOpenJob.getState().job!;
          setView({ ...viewOf(j), stage: j.cuts.length || j.items.length ? 'cuts' : 'blank' });
          document.title = `${j.name} \u00b7 Mirvak`;
        }
      })
      .catch((e: Error) => {
        console.error(e);
        if (live) setTrouble(saysOf(e, storageMessage(e)));
      });
    void useLibrary
      .getState()
      .load()
      .catch(() => {});
    return () => {
      live = false;
      setJob(null, null);
      leaveSolidSeat();
      leaveJob();
    };
  }, [id]);
  useEffect(() => {
    // At once, not when the window has been drawn: the background begins with a change while the window follows.
    const tell = (s: OpenJob) => s.whole && s.id === id && setJob(s.whole, s.shownId);
    // When a job is opened the window comes first: workers, who would take every processor, begin when all of it is there.
    holdWork(whenComplete(PATIENCE_MS));
    tell(useOpenJob.getState());
    return useOpenJob.subscribe((s, before) => {
      if (s.job !== before.job) tell(s);
      // What was picked and looked at belongs to the set-up that was shown.
      if (!s.job || !before.job || s.id !== before.id) return;
      if (s.shownId !== before.shownId) setView(viewOf(s.job));
      else follow(before.job.blank, s.job.blank);
    });
  }, [id]);
  useEffect(
    () =>
      useOpenJob.subscribe((s, before) => s.refused !== before.refused && s.refused && tell('error', s.refused.words)),
    [],
  );
  useEffect(watchLinks, []);
  // A font that another window has brought is read here too.
  const assets = useOpenJobLater((s) => s.job?.assets);
  useEffect(() => {
    if (assets?.length) {
      void fontFiles({ assets })
        .then(bringOwnFonts)
        .catch(() => {});
    }
  }, [assets]);
  const forms = useOpenJobLater((s) => s.job?.relief.forms);
  useEffect(() => {
    if (assets?.length && forms?.length) void bringFilesOf(assets, forms).catch(() => {});
  }, [assets, forms]);
  useEffect(() => {
    const key = (e: KeyboardEvent) => void onShortcut(e);
    const close = (e: BeforeUnloadEvent) => {
      // What stands in a field and was not entered is not lost either.
      leaveField();
      const { leave, flush } = useOpenJob.getState();
      const kept = leave();
      void flush();
      if (!kept) e.preventDefault();
    };
    const hide = () => {
      useOpenJob.getState().leave();
      void useOpenJob.getState().flush();
    };
    // Where a press of the middle button pastes what is marked, it moves the view here, and pastes in fields alone.
    const noPaste = (e: MouseEvent) => {
      if (e.button === 1 && !(e.target as Element).closest('input, textarea')) e.preventDefault();
    };
    window.addEventListener('keydown', key);
    window.addEventListener('paste', onPaste);
    window.addEventListener('mouseup', noPaste);
    window.addEventListener('auxclick', noPaste);
    window.addEventListener('beforeunload', close);
    // Back takes the sheet away before its field is left: what was typed is entered first.
    window.addEventListener('popstate', leaveField, { capture: true });
    document.addEventListener('visibilitychange', hide);
    return () => {
      window.removeEventListener('keydown', key);
      window.removeEventListener('paste', onPaste);
      window.removeEventListener('mouseup', noPaste);
      window.removeEventListener('auxclick', noPaste);
      window.removeEventListener('beforeunload', close);
      window.removeEventListener('popstate', leaveField, { capture: true });
      document.removeEventListener('visibilitychange', hide);
    };
  }, []);

  if (trouble)
    return (
      <Box sx={{ p: 6, maxWidth: 560 }}>
        <Typography variant="h1">This job cannot be opened</Typography>
        <Typography sx={{ my: 2 }}>{trouble}</Typography>
        <Button variant="contained" onClick={() => router.push('/')}>
          Back to the job shelf
        </Button>
      </Box>
    );
  if (openId !== id) return <Opening />;
  const Sheet = sheets[stage];
  const sheetPart: Part = {
    id: 'sheet',
    size: narrow ? '45%' : window.innerWidth >= 1800 ? 680 : window.innerWidth >= 1200 ? 352 : 304,
    min: narrow ? 120 : 264,
    keeps: !narrow,
    node: (
      <Box
        // One of its own for each: it begins at its top, however far the one before was scrolled. (To scroll it, all would be laid out.)
        key={stage}
        component="section"
        aria-label="Sheet"
        tabIndex={-1}
        sx={{
          flex: 1,
          minWidth: 0,
          bgcolor: 'var(--mui-palette-faint)',
          overflowY: 'auto',
          overflowX: 'hidden',
          containerType: 'inline-size',
          outline: 'none',
        }}
      >
        {/* Wide sheets have two columns; what belongs together stays in one. */}
        <Box
          sx={{
            display: 'flex',
            flexDirection: 'column',
            minHeight: '100%',
            '@container (min-width: 600px)': {
              display: 'block',
              columnCount: 2,
              columnGap: 0,
              '& > *': { breakInside: 'avoid' },
              '& > [data-sheet-head]': { columnSpan: 'all' },
            },
          }}
        >
          <After turn={turns.sheet} once="sheet">
            <Guarded part="This sheet" anew="job">
              <Sheet />
            </Guarded>
          </After>
        </Box>
      </Box>
    ),
  };
  const tablePart: Part = {
    id: 'table',
    min: 240,
    node: (
      <After turn={turns.table}>
        <WorkTable />
      </After>
    ),
  };
  return (
    <Box sx={{ height: 'var(--page-height, 100vh)', display: 'flex', flexDirection: 'column' }}>
      {/* Its place is kept from the start: else what lies below it would move under the hand when it comes. */}
      <Box sx={{ flex: 'none', minHeight: BAR, bgcolor: 'background.paper' }}>
        <After turn={turns.bar}>
          <Guarded part="The bar" anew="job">
            <Bar />
          </Guarded>
        </After>
      </Box>
      <SaveTrouble />
      <Box sx={{ flex: 1, minHeight: 0, display: 'flex' }}>
        <Stages />
        <Box component="main" sx={{ flex: 1, minWidth: 0, minHeight: 0, display: 'flex' }}>
          <Split
            id="sheet"
            names="Width of the sheet"
            orientation={narrow ? 'vertical' : 'horizontal'}
            parts={narrow ? [tablePart, sheetPart] : [sheetPart, tablePart]}
          />
        </Box>
      </Box>
      <Around />
    </Box>
  );
}
