import * as Comlink from 'comlink';
import { workerCount } from './cores';
import { onFonts, shippedFonts } from './fonts';
import { onReliefFiles } from './reliefFiles';
import type { ComputeApi } from './protocol';
import { computeSeat, type ComputeSeat } from './seat';

export interface Pool {
  /** Plan cuts, each one at a time. The prover is the last of them: there is nothing to prove before all is planned. */
  readonly planners: readonly ComputeSeat[];
  /** The first of them, which also reads target sections. */
  readonly planner: ComputeSeat;
  /** Writes, proves and plays programs. */
  readonly prover: ComputeSeat;
  /** Shapes reliefs, which nobody waits behind; begun when there is one. */
  readonly shaper: ComputeSeat;
}

/** Gives a worker its fonts, and those that are brought later. Messages keep their order, so what is asked for later finds them there. */
const withFonts = async (api: Comlink.Remote<ComputeApi>): Promise<void> => {
  await shippedFonts;
  onFonts((files) => void api.putFonts(files));
};

let pool: Pool | null = null;
const lostProver = new Set<() => void>();
/** Calls back when the prover was lost, and with it what it has proven. */
export const onProverLost = (tell: () => void): void => void lostProver.add(tell);

type Api = Comlink.Remote<ComputeApi>;

/**
 * Lets planners help each other with ways over a relief and the prover with cutting, the prover, which plans as well, help them, and
 * all of them help whoever shapes, whichever of them comes first or is replaced.
 */
function wiring() {
  const [planners, provers, shapers] = [new Set<Api>(), new Set<Api>(), new Set<Api>()];
  const join = (helper: Api, helped: Api) => {
    const { port1, port2 } = new MessageChannel();
    void helper.lend(Comlink.transfer(port1, [port1]));
    void helped.borrow(Comlink.transfer(port2, [port2]));
  };
  const joins = (own: Set<Api>, helps: readonly Set<Api>[], by: readonly Set<Api>[]) => (api: Api) => {
    own.add(api);
    for (const set of helps) for (const helped of set) if (helped !== api) join(api, helped);
    for (const set of by) for (const helper of set) if (helper !== api) join(helper, api);
  };
  const alone = (set: Set<Api>, how: (api: Api) => void) => (api: Api) => (set.clear(), how(api));
  return {
    planner: joins(planners, [planners, provers, shapers], [planners, provers]),
    prover: alone(provers, joins(provers, [planners, shapers], [planners])),
    shaper: alone(shapers, joins(shapers, [], [planners, provers])),
  };
}

/** One worker for each core, the prover among them. */
function makePool(): Pool {
  const workers = workerCount();
  const wire = wiring();
  const as = (how: (api: Api) => void) => (api: Api) => (how(api), withFonts(api));
  const prover = computeSeat(as(wire.prover), { onLost: () => lostProver.forEach((tell) => tell()) });
  const [planner, ...more] = Array.from({ length: workers - 1 }, (_, k) =>
    computeSeat(as(wire.planner), { later: k > 0 }),
  );
  const shaper = computeSeat(
    async (api) => {
      wire.shaper(api);
      onReliefFiles((files) => void api.putReliefFiles(files));
      await withFonts(api);
    },
    { later: true },
  );
  return { planners: [planner, ...more, prover], planner, prover, shaper };
}

/** The workers of the engine, started with the shipped fonts; planners beyond the first when there is work for them. */
export const computePool = (): Pool => (pool ??= makePool());
