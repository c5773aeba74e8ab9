import { freshId } from '@/store/jobs';
import { useOpenJob } from '@/store/openJob';
import {
  startingAt,
  startingFrom,
  whyNotAt,
  withCopy,
  withNewSetup,
  withoutSetup,
  withPlace,
  type Beginning,
} from '@/core/job/allSetups';
import type { Setup, Job } from '@/core/job/job';
import { cuttersIn, nearestCutter } from '@/core/cutters/library';
import { whyNoDowels, withDowels } from '@/core/job/dowels';
import { lengthText } from '@/core/units/length';
import { useLibrary } from '@/ui/library/useLibrary';
import { setView } from '@/ui/view';
import { tell } from './tell';

const names: Record<Beginning, string> = {
  x: 'Add set-up, turned over',
  y: 'Add set-up, turned over',
  none: 'Add set-up',
  blank: 'Add set-up on another blank',
};

/** Changes the whole job by a function that makes another one of it. */
const become = (name: string, next: (job: Job) => Job): void =>
  useOpenJob.getState().editWhole(name, (job) => void Object.assign(job, next(useOpenJob.getState().whole!)));

/** Adds a set-up behind the one that is shown, and shows it. */
export function addSetup(begins: Beginning): void {
  const { whole, shownId, show } = useOpenJob.getState();
  if (!whole || !shownId) return;
  const made = withNewSetup(whole, shownId, begins, freshId);
  become(names[begins], () => made.job);
  show(made.id);
}

export function copySetup(id: string): void {
  const { whole, show } = useOpenJob.getState();
  if (!whole) return;
  const made = withCopy(whole, id, freshId);
  become('Copy set-up', () => made.job);
  show(made.id);
}

export const renameSetup = (id: string, name: string): void =>
  useOpenJob.getState().editWhole('Rename set-up', (job) => job.setups.forEach((s) => s.id === id && (s.name = name)));

/** Runs a set-up at another place of the order, from 0; says why where that cannot be. */
export function placeSetup(id: string, to: number): void {
  const { whole } = useOpenJob.getState();
  const at = whole?.setups.findIndex((s) => s.id === id) ?? -1;
  if (!whole || at < 0 || at === to) return;
  const why = whyNotAt(whole, id, to);
  if (why) return tell('info', `"${whole.setups[at].name}" cannot be run there. ${why}`);
  become(to < at ? 'Run set-up earlier' : 'Run set-up later', (job) => withPlace(job, id, to));
}

/** Takes a set-up out; the one before it is shown. */
export function deleteSetup(id: string): void {
  const { whole, show, undo } = useOpenJob.getState();
  if (!whole || whole.setups.length === 1) return;
  const at = whole.setups.findIndex((s) => s.id === id);
  const loose = startingFrom(whole, id);
  const next = whole.setups[at - 1] ?? whole.setups[1];
  show(next.id);
  become('Delete set-up', (job) => withoutSetup(job, id));
  const left = useOpenJob.getState().whole!.setups;
  const uncut = loose.filter((s) => left.some((q) => q.id === s.id && !q.after)).map((s) => `"${s.name}"`);
  tell(
    'info',
    `"${whole.setups[at].name}" was deleted.${uncut.length ? ` ${uncut.join(' and ')} now ${uncut.length === 1 ? 'starts' : 'start'} from an uncut blank.` : ''}`,
    { words: 'Undo', run: undo },
  );
}

export const startSetupFrom = (id: string, after: Setup['after']): void =>
  become('Change what the set-up starts from', (job) => startingAt(job, id, after));

/** Shows the set-up after the one that is shown; after the last the first. */
export function showNextSetup(): void {
  const { whole, shownId, show } = useOpenJob.getState();
  if (whole) show(whole.setups[(whole.setups.findIndex((s) => s.id === shownId) + 1) % whole.setups.length].id);
}

/** Dowels as makers have them: 4 mm, or an eighth of an inch. */
const DOWEL = { mm: 4, in: 3.175 } as const;

/** Drills dowel holes for the set-up that is shown, which starts from one turned over; says why where that cannot be. */
export function drillDowels(): void {
  const { whole, shownId, show } = useOpenJob.getState();
  if (!whole || !shownId) return;
  const { cutters } = useLibrary.getState();
  const id = nearestCutter(cuttersIn(cutters, whole.unit), 'drill', DOWEL[whole.unit]);
  const drill = cutters.find((c) => c.id === id);
  const why =
    whyNoDowels(whole, shownId) ?? (drill ? null : 'The library has no drill. Add one of the size of your dowels.');
  if (why || !drill) return tell('info', why ?? '');
  const made = withDowels(whole, shownId, structuredClone(drill), freshId);
  become('Drill dowel holes', () => made.job);
  const before = whole.setups.find((s) => s.id === shownId)!.after!.setup;
  const name = whole.setups.find((s) => s.id === before)!.name;
  const deep = lengthText(made.job.setups.find((s) => s.id === before)!.intoBed, whole.unit);
  tell(
    'success',
    `"${name}" drills two holes by ${drill.name}, ${deep} into the spoilboard: put the blank back on its dowels.`,
    {
      words: 'Show them',
      run: () => (show(before), setView({ cutId: made.cut, stage: 'cuts' })),
    },
  );
}
