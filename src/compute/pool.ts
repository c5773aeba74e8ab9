import { loadFonts, onFonts } from './fonts';
import { Seat } from './seat';

export interface Pool {
  /** Plans cuts, and reads target sections. */
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

/** The two workers of this window (both cores), started with the shipped fonts. */
export const computePool = (): Pool => (pool ??= { planner: new Seat(withFonts), prover: new Seat(withFonts, () => lostProver.forEach((tell) => tell())) });

let helper: Seat | null = null;
/** A third worker for what a maker asks for by name (reading, tracing, shapes): begun when first needed. */
export const artworkHelper = (): Seat => (helper ??= new Seat(withFonts));

export const isCancelled = (e: unknown): boolean => (e as Error)?.name === 'Cancelled';
