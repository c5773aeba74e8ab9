import { create } from 'zustand';
import { cellOf } from '@/compute/keys';
import { useWork } from '@/compute/useWork';
import { atProof } from '@/compute/engineHandle';
import { isCancelled } from '@/compute/workerHandle';
import { useOpenJob } from '@/store/openJob';
import { setView } from '@/ui/view';

/** Moves a second at speed 1. */
const BASE = 150;

interface Play {
  playing: boolean;
  /** How many times faster than the slowest. */
  speed: number;
  move: number;
  /** Cuts that are shown; null for all. */
  only: string[] | null;
  active: boolean;
  start(): void;
  pause(): void;
  seek(move: number): void;
  setSpeed(speed: number): void;
  setOnly(only: string[] | null): void;
  leave(): void;
}

let asking = false;
let asked: number | null = null;

/** Plays the proven programs: the prover cuts on, the window shows what it sends. */
export const usePlay = create<Play>((set, get) => {
  const ask = async (move: number): Promise<void> => {
    asked = move;
    if (asking) return;
    asking = true;
    try {
      while (asked !== null) {
        const goal: number = asked;
        asked = null;
        const job = useOpenJob.getState().job;
        if (!job) break;
        const state = await atProof.play(
          job.at.id,
          goal,
          Math.max(cellOf(job, 'quick'), cellOf(job, useWork.getState().quality)),
          get().only,
        );
        if (get().active) setView({ play: state });
      }
    } catch (e) {
      if (!isCancelled(e)) throw e;
    } finally {
      asking = false;
    }
  };
  let last = 0;
  const tick = (now: number) => {
    const { playing, move, speed } = get();
    if (!playing) return;
    const moves = useWork.getState().proof?.moves ?? 0;
    const next = Math.min(moves, move + ((now - last) / 1000) * BASE * speed);
    last = now;
    set({ move: next, playing: next < moves });
    void ask(next);
    if (next < moves) requestAnimationFrame(tick);
  };
  return {
    playing: false,
    speed: 4,
    move: 0,
    only: null,
    active: false,
    start() {
      const moves = useWork.getState().proof?.moves ?? 0;
      if (!moves || get().playing) return;
      set({ playing: true, active: true, move: get().move >= moves || !get().active ? 0 : get().move });
      last = performance.now();
      requestAnimationFrame(tick);
    },
    pause: () => set({ playing: false }),
    seek(move) {
      set({ move, active: true, playing: false });
      void ask(move);
    },
    setSpeed: (speed) => set({ speed }),
    setOnly(only) {
      set({ only, active: true, playing: false });
      const moves = useWork.getState().proof?.moves ?? 0;
      const move = get().move || moves;
      set({ move });
      void ask(move);
    },
    leave() {
      set({ playing: false, active: false, move: 0, only: null });
      setView({ play: null });
    },
  };
});
