import * as Comlink from 'comlink';
import { loadFonts, onFonts } from './fonts';
import type { ComputeApi } from './protocol';

/** One worker with its own stop mark. Tickets rise; everything up to the stop mark is given up. */
class Seat {
  readonly api: Comlink.Remote<ComputeApi>;
  private readonly worker: Worker;
  private readonly stop: Int32Array | null;
  private ticket = 0;

  constructor() {
    this.worker = new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' });
    this.api = Comlink.wrap<ComputeApi>(this.worker);
    this.stop = typeof SharedArrayBuffer === 'undefined' ? null : new Int32Array(new SharedArrayBuffer(4));
  }
  get shared(): SharedArrayBuffer | null {
    return (this.stop?.buffer as SharedArrayBuffer) ?? null;
  }
  next(): number {
    return ++this.ticket;
  }
  /** Gives up everything that was asked for so far. */
  cancel(): void {
    if (this.stop) Atomics.store(this.stop, 0, this.ticket);
  }
}

export interface Pool {
  /** Plans cuts, and reads target sections. */
  readonly planner: Seat;
  /** Writes, proves and plays programs. */
  readonly prover: Seat;
  readonly ready: Promise<void>;
}

let pool: Pool | null = null;

/** The two workers of this window (both cores), started with the shipped fonts. */
export function computePool(): Pool {
  if (pool) return pool;
  const planner = new Seat();
  const prover = new Seat();
  const ready = equip(planner, prover);
  pool = { planner, prover, ready };
  return pool;
}

/** Gives workers their stop mark and their fonts. Messages keep their order, so what is asked for later finds them there. */
async function equip(...seats: Seat[]): Promise<void> {
  for (const s of seats) void s.api.setStop(s.shared);
  await loadFonts();
  onFonts((files) => seats.forEach((s) => void s.api.putFonts(files)));
}

let helper: { seat: Seat; ready: Promise<void> } | null = null;

/** A third worker for what a maker asks for by name (reading, tracing, shapes): begun when first needed. */
export async function artworkHelper(): Promise<Seat> {
  if (!helper) {
    const seat = new Seat();
    helper = { seat, ready: equip(seat) };
  }
  await helper.ready;
  return helper.seat;
}

export const isCancelled = (e: unknown): boolean => (e as Error)?.name === 'Cancelled';
