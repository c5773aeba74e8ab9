import { loadFonts, onFonts } from './fonts';
import { Seat } from './seat';

export interface Pool {
  /** Plan cuts, each one at a time. The prover is the last of them: there is nothing to prove before all is planned. */
  readonly planners: readonly Seat[];
  /** The first of them, which also reads target sections. */
  readonly planner: Seat;
  /** Writes, proves and plays programs. */
  readonly prover: Seat;
}

/** Gives a worker its fonts, and those that are brought later. Messages keep their order, so what is asked for later finds them there. */
const withFonts: ConstructorParameters<typeof Seat>[0] = async (api) => {
  await loadFonts();
  onFonts((files) => void api.putFonts(files));
};

let pool: Pool | null = null;
const lostProver = new Set<() => void>();
/** Calls back when the prover was lost, and with it what it has proven. */
export const onProverLost = (tell: () => void): void => void lostProver.add(tell);

/** More workers than so many want more memory than they save time. */
const MOST = 16;

/** One worker for each core, the prover among them. */
function makePool(): Pool {
  const workers = Math.min(MOST, Math.max(2, navigator.hardwareConcurrency || 2));
  const prover = new Seat(withFonts, { onLost: () => lostProver.forEach((tell) => tell()) });
  const [planner, ...more] = Array.from({ length: workers - 1 }, (_, k) => new Seat(withFonts, { later: k > 0 }));
  return { planners: [planner, ...more, prover], planner, prover };
}

/** The workers of this window, started with the shipped fonts; planners beyond the first when there is work for them. */
export const computePool = (): Pool => (pool ??= makePool());

let helper: Seat | null = null;
/** A third worker for what a maker asks for by name (reading, tracing, shapes): begun when first needed. */
export const artworkHelper = (): Seat => (helper ??= new Seat(withFonts));

export const isCancelled = (e: unknown): boolean => (e as Error)?.name === 'Cancelled';
