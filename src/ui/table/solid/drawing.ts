import { create } from 'zustand';

/** What is drawn sooner than this (ms) was never seen otherwise. */
const SOON = 300;

/** Whether the solid is still seen as it was, what was given to be drawn last being on its way to the screen. */
export const useSolidDrawing = create<{ readonly drawing: boolean }>(() => ({ drawing: false }));

let nth = 0;
let timer: ReturnType<typeof setTimeout> | undefined;

function settle(drawing: boolean): void {
  clearTimeout(timer);
  if (useSolidDrawing.getState().drawing !== drawing) useSolidDrawing.setState({ drawing });
}

/** Something is given to be drawn, or a draft of it is seen: it is drawn in full when the promise is kept. */
export function noteDrawing(drawn: Promise<unknown>): void {
  const mine = ++nth;
  clearTimeout(timer);
  timer = setTimeout(() => settle(true), SOON);
  const done = () => mine === nth && settle(false);
  void drawn.then(done, done);
}

/** What drew is gone, and with it what it was to draw. */
export function leaveDrawing(): void {
  nth++;
  settle(false);
}
