import type { ComponentType } from 'react';

/**
 * The scripts of the workbench, in pieces that each run within a blink; what a piece needs of an earlier one is there already.
 * In one go they would hold the page up for a fifth of a second just when a job is opened.
 */
const pieces: readonly (() => Promise<unknown>)[] = [
  () => import('@/core/cuts/registry'),
  () => import('@/ui/common/Split'),
  () => import('@/ui/library/LibraryDrawer'),
  () => import('@/ui/blank/BlankSheet'),
  () => import('@/ui/cuts/CutsSheet'),
  () => import('@/ui/table/PlanView'),
  () => import('@/ui/table/Table'),
  () => import('@/ui/artwork/ArtworkSheet'),
  () => import('@/ui/relief/ReliefSheet'),
  () => import('@/ui/proof/ProofSheet'),
  () => import('@/ui/run/RunSheet'),
  () => import('@/ui/table/SolidView'),
];

let coming: Promise<ComponentType<{ id: string }>> | null = null;
let hurried = false;

/** One task of the page ends here and another begins; where nobody waits, when the page has nothing else to do. */
const pause = (): Promise<unknown> =>
  new Promise((r) => {
    if (hurried || !('requestIdleCallback' in window)) setTimeout(r, 0);
    else requestIdleCallback(r, { timeout: 1000 });
  });

async function bring(): Promise<ComponentType<{ id: string }>> {
  for (const piece of pieces) {
    await pause();
    await piece();
  }
  await pause();
  return (await import('./Workbench')).Workbench;
}

/** The workbench, as soon as it can be there. */
export function bringWorkbench(): Promise<ComponentType<{ id: string }>> {
  hurried = true;
  return anew();
}

/** What sets letters is made ready; where it does not come, who needs it says so. */
async function readyLetters(): Promise<void> {
  const { loadFonts, shelf } = await import('@/compute/fonts');
  await loadFonts()
    .then(() => shelf.shaper())
    .catch(() => {});
}

/**
 * Fetches the workbench while the page has nothing else to do, and begins those who will work for it: a job is likely to be
 * opened next, and then the page needs the processors for itself.
 */
export function fetchWorkbench(): void {
  void anew()
    .then(async () => {
      await pause();
      // A face that is asked for when a sheet is laid out comes after another one, and all of it is laid out twice.
      await Promise.all([...document.fonts].map((face) => face.load())).catch(() => {});
      await pause();
      await readyLetters();
      await pause();
      // Where a job is being opened already, they begin with its work, when the window has drawn it.
      if (!hurried) (await import('@/compute/engineHandle')).beginEngine();
    })
    .catch(() => {});
}

/** A piece that could not be fetched is asked for again the next time. */
const anew = (): Promise<ComponentType<{ id: string }>> =>
  (coming ??= bring().catch((e) => {
    coming = null;
    throw e;
  }));
