import { holdAlive } from './alive';
import * as Comlink from 'comlink';
import { bestThreshold, proposedColours } from '@/core/artwork/trace/colours';
import { trace } from '@/core/artwork/trace/trace';
import { boundsOfPaths } from '@/core/geometry/path';
import type { Item } from '@/core/artwork/item';
import type { Drawn } from '@/core/exchange/drawn';
import { itemsOf } from '@/core/exchange/items';
import { FontShelf } from '@/core/lettering/shelf';
import { minutesOf } from '@/core/motion/timing';
import { Cancelled, planCut, targetOf } from '@/core/pipeline/planning';
import { castIn } from '@/core/pipeline/casting';
import { fittedPair } from '@/core/pipeline/fitting';
import { shapeMemory, shapeRelief } from '@/core/pipeline/shaping';
import { writePrograms } from '@/core/pipeline/programs';
import { heldAgainst, glimpseOf, placePrograms, prove, type Proof } from '@/core/pipeline/proving';
import { breaksIn } from '@/core/program/programLines';
import { cutAlong } from '@/core/proof/along';
import type { Onlooker } from '@/core/proof/cutting';
import { lineNear, lineOnTable } from '@/core/proof/lookup';
import type { PlacedProgram } from '@/core/proof/placed';
import { createPlayer, type Player } from '@/core/proof/player';
import { isKeptMesh, readAnyMesh } from '@/core/exchange/mesh/read';
import { readPicture } from '@/core/exchange/picture/read';
import { bodyOf, closedMesh } from '@/core/exchange/mesh/body';
import { islandMesh } from '@/core/exchange/mesh/island';
import { writeObj } from '@/core/exchange/mesh/writeObj';
import { stlOfMesh, writeStl } from '@/core/exchange/mesh/writeStl';
import { writeHeights } from '@/core/exchange/picture/write';
import { keptOf } from '@/core/exchange/picture/kept';
import { ornamentLook } from '@/core/relief/ornaments/carve';
import { outlinesOf } from '@/core/relief/outlined';
import { boxOfMesh, standingSize, trianglesOf } from '@/core/relief/mesh';
import { foundBy, type Faces } from '@/core/proof/faces';
import type { HeightField } from '@/core/relief/field';
import { createSimulation, type Means, type Simulation } from '@/core/proof/simulate';
import { emptyPlan, type CutPlan, type Expected, type Target } from '@/core/cuts/kind';
import type { TurnedOver } from '@/core/job/job';
import { contentKey, derived } from '@/core/geometry/hash';
import { whileWanted } from '@/core/units/stillWanted';
import { gauge, readDrawing, shapeWork } from './artwork';
import { holdBallast } from './ballast';
import { becoming } from './becoming';
import { workerCount } from './cores';
import { keepDerived } from './derived';
import { clearingHands } from './clearingHands';
import { followHands } from './followHands';
import { formHands } from './formHands';
import { handsOver, sharedHeights } from './hands';
import { lendTo, type SharedWork } from './lending';
import { ReliefShelf } from '@/core/pipeline/reliefShelf';
import { Receiver } from './parcel';
import type { ComputeApi, ReportProgress } from './protocol';
import { inShared, sharedCopy } from './shared';
import { atWork, stepAside, takeMark } from './stepAside';

const art = new FontShelf();
const reliefFiles = new ReliefShelf();
/** Forms as they were shaped last: a changed one costs itself. */
const shapes = shapeMemory();
const parcels = new Receiver();
/** Text that has gone to the window: what it has got is not copied again. */
const shared = derived<Uint8Array, Uint8Array>();
/** Tickets up to this one are no longer wanted; shared with the window, so that it is seen while computing. */
let stop: Int32Array | null = null;
/** Nodes of a glimpse lie so many times as far apart as those of its proof. */
const GLIMPSE = 4;
/** What a set-up was proven with last. What was cut is kept: a changed letter costs one letter. */
interface Bench {
  readonly simulation: Simulation;
  proof: Proof | null;
  proven: readonly PlacedProgram[];
  player: Player | null;
  /** What it was to be cut to, where a cut is worked out from the relief. */
  relief: HeightField | null;
  /** How the set-up finds its blank, and of which proof and turn that is. */
  found: { readonly of: Faces; readonly turned: TurnedOver; readonly cell: number; readonly faces: Faces } | null;
}
/** Those who help with cutting, with shaping, with ways over a relief, and with floors. */
const helpers: MessagePort[] = [];
const rowHands = typeof SharedArrayBuffer === 'undefined' ? undefined : formHands(helpers);
const floorHands = clearingHands(helpers);
const wayHands = typeof SharedArrayBuffer === 'undefined' ? undefined : followHands(helpers);
const means: Means =
  typeof SharedArrayBuffer === 'undefined' ? {} : { hands: handsOver(helpers), memory: sharedHeights };
const benches = new Map<string, Bench>();
const sharedFields = derived<HeightField, HeightField>();
/** The lower face of what was found, for the window and its workers: one copy as long as it is the same. */
const underOf = ({ down }: Faces) => down && sharedFields(down, '', () => ({ ...down, z: sharedCopy(down.z) }));

function benchOf(setupId: string): Bench {
  let b = benches.get(setupId);
  if (!b)
    benches.set(
      setupId,
      (b = { simulation: createSimulation(means), proof: null, proven: [], player: null, relief: null, found: null }),
    );
  return b;
}
/** The drawing that was read last, and the items made of it. */
let opened: { drawn: Drawn; items: Item[] } | null = null;
let kept: { key: string; relief: HeightField | null; target: Target } | null = null;

/** Asks whether what a ticket was given for is still wanted. Throws Cancelled. */
const wanted = (ticket: number) => () => {
  stepAside();
  if (stop && Atomics.load(stop, 0) >= ticket) throw new Cancelled();
};

function watch(ticket: number, progress: ReportProgress): (done: number) => void {
  let told = performance.now();
  const still = wanted(ticket);
  return (done) => {
    still();
    const now = performance.now();
    if (now - told < 120) return;
    told = now;
    progress(done);
  };
}

const api: ComputeApi = {
  hold: holdAlive,
  setMarks(shared, page) {
    takeMark(page);
    if (shared) stop = new Int32Array(shared);
  },
  keep: (key, derived) => keepDerived(key, parcels.unpack(derived)),
  putFonts(files) {
    for (const [id, bytes] of Object.entries(files)) art.put(id, bytes);
  },
  putReliefFiles(files) {
    for (const [id, file] of Object.entries(files)) reliefFiles.put(id, file);
  },
  shape(ticket, parcel, cell, progress) {
    const job = parcels.unpack(parcel);
    const shaped = whileWanted(wanted(ticket), () =>
      shapeRelief(
        job,
        cell,
        {
          art,
          mesh: reliefFiles.mesh,
          picture: reliefFiles.picture,
          hands: rowHands,
          progress: watch(ticket, progress),
        },
        shapes,
      ),
    );
    return inShared(shaped);
  },
  lend(port) {
    port.onmessage = ({ data }: MessageEvent<SharedWork>) => lendTo(data);
  },
  borrow(port) {
    helpers.push(port);
  },
  plan(ticket, parcel, cutId, progress) {
    const { job, relief } = parcels.unpack(parcel);
    const cut = job.cuts.find((c) => c.id === cutId)!;
    let plan: CutPlan;
    let expected: Expected | null = null;
    const told = watch(ticket, (done) => progress({ done, expected }));
    holdBallast(workerCount());
    try {
      plan = whileWanted(wanted(ticket), () =>
        planCut(job, cut, art, told, () => relief, {
          hands: wayHands,
          meanwhile: floorHands.begin,
          expect: (all) => {
            expected = all;
            holdBallast(workerCount(), all.moves);
          },
        }),
      );
    } catch (e) {
      if (e instanceof Cancelled) throw e;
      // A cut that fails does not stop the others: it says so itself.
      console.error(e);
      plan = emptyPlan([
        {
          level: 'problem',
          text: 'This cut could not be planned: a fault of Mirvak, not of your job. Undo the last change of it, or take artwork out of it until it is planned again.',
        },
      ]);
    } finally {
      floorHands.end();
    }
    return inShared(plan);
  },
  minutes(parcel) {
    const { plan, run } = parcels.unpack(parcel);
    return minutesOf(
      plan.toolpaths.map((t) => t.motion),
      run.machine,
    );
  },
  prove(ticket, parcel, cell, before, progress, seen, show) {
    const { job, plans, relief } = parcels.unpack(parcel);
    const byId = new Map(plans);
    holdBallast(
      workerCount(),
      plans.flatMap(([, p]) => p.toolpaths).reduce((n, t) => n + t.motion.count, 0),
    );
    const b = benchOf(job.at.id);
    const programs = writePrograms(job, byId);
    const placed = placePrograms(job, programs);
    const source = before && benches.get(before.setup)?.proof;
    // Its proof went with an earlier worker: it is proven again first.
    if (before && !source) throw new Cancelled();
    // The faces are made anew only when what they come from has changed: the simulation knows them again.
    if (!before || !source) b.found = null;
    else if (b.found?.of !== source.left || b.found.turned !== before.turned || b.found.cell !== cell)
      b.found = {
        of: source.left,
        turned: before.turned,
        cell,
        faces: foundBy(source.left, before.turned, job.blank, cell),
      };
    const found = b.found && before && { faces: b.found.faces, from: before.name };
    let onlooker: Onlooker | null = null;
    if (seen && show) {
      const from = before && source ? foundBy(source.left, before.turned, job.blank, GLIMPSE * cell).up : null;
      const glimpse = glimpseOf(
        job,
        placed,
        programs.tools,
        GLIMPSE * cell,
        watch(ticket, () => {}),
        from,
      );
      if (glimpse) {
        show({ ...glimpse, z: sharedCopy(glimpse.z) });
        if (means.memory) onlooker = becoming(glimpse, seen, show);
      }
    }
    const proof = prove(
      job,
      placed,
      programs.tools,
      byId,
      cell,
      watch(ticket, progress),
      b.simulation,
      found,
      onlooker,
    );
    // The simulation keeps its field; the window gets a copy, and its workers see the same one.
    const field = { ...proof.field, z: sharedCopy(proof.field.z) };
    // Played coarser than proven.
    b.player = createPlayer(job, placed, programs.tools, (c) =>
      before && source ? foundBy(source.left, before.turned, job.blank, c).up : null,
    );
    b.proven = placed;
    // The simulation goes on with its field; what starts from this one starts from what it is now.
    b.proof = { ...proof, left: { ...proof.left } };
    b.relief = relief;
    const result = {
      files: programs.files.map((f) => ({
        ...f,
        chunks: f.chunks.map((c) => shared(c, '', () => inShared(c))),
        breaks: f.chunks.map(breaksIn),
      })),
      tools: [...programs.tools].map(([tool, c]) => ({ tool, cutterId: c.id })),
      field,
      under: b.found && underOf(b.found.faces),
      findings: proof.findings,
      stays: proof.stays,
      compared: false,
      times: proof.times,
      minutes: proof.minutes,
      toolChanges: proof.toolChanges,
      standing: proof.standing,
      moves: b.player.moves,
    };
    return result;
  },
  compare(ticket, setup, progress) {
    const { proof, relief } = benchOf(setup);
    if (!proof) throw new Cancelled();
    return whileWanted(wanted(ticket), () => heldAgainst(proof, art, watch(ticket, progress), () => relief));
  },
  play(ticket, setup, move, cell, only) {
    const { player } = benchOf(setup);
    if (!player) throw new Cancelled();
    const state = player.to(
      move,
      cell,
      only,
      watch(ticket, () => {}),
    );
    // The player goes on cutting its own field.
    return { ...state, field: { ...state.field, z: sharedCopy(state.field.z) } };
  },
  lineOnTable: (setup, file, line) => lineOnTable(benchOf(setup).proven, file, line),
  lineNear: (setup, x, y, reach) => lineNear(benchOf(setup).proven, x, y, reach),
  along(setup, x0, y0, x1, y1, count) {
    const { proof, proven } = benchOf(setup);
    return proof && cutAlong(proven, proof.input.tools, { x0, y0, x1, y1 }, count, proof.found?.faces.up ?? null);
  },
  fit(ticket, pair, progress) {
    const [pocket, plug] = [benchOf(pair.pocket).proof, benchOf(pair.plug).proof];
    const has = (proof: Proof | null, cut: string) => proof?.input.job.cuts.some((c) => c.id === cut);
    if (!pocket || !plug || !has(pocket, pair.pocketCut) || !has(plug, pair.plugCut)) throw new Cancelled();
    return inShared(whileWanted(wanted(ticket), () => fittedPair(pair, pocket, plug, art, watch(ticket, progress))));
  },
  cast(ticket, setup, values, progress) {
    const { proof } = benchOf(setup);
    if (!proof) throw new Cancelled();
    return inShared(whileWanted(wanted(ticket), () => castIn(proof, values, watch(ticket, progress))));
  },
  clear() {
    benches.clear();
  },
  section(parcel, x0, y0, x1, y1, count) {
    const { job, relief } = parcels.unpack(parcel);
    const key = contentKey([job.blank, job.items, job.cuts, job.cutters]);
    if (kept?.key !== key || kept.relief !== relief) kept = { key, relief, target: targetOf(job, art, () => relief) };
    const target = new Float64Array(count);
    for (let i = 0; i < count; i++) {
      const f = i / (count - 1);
      target[i] = kept.target(x0 + (x1 - x0) * f, y0 + (y1 - y0) * f);
    }
    return Comlink.transfer({ target }, [target.buffer]);
  },
  async openDrawing(name, bytes) {
    opened = { drawn: await readDrawing(name, bytes), items: [] };
    const b = boundsOfPaths(opened.drawn.things.flatMap((t) => t.paths));
    return { unitKnown: opened.drawn.unitKnown, width: b ? b.x1 - b.x0 : 0, height: b ? b.y1 - b.y0 : 0 };
  },
  makeItems(name, here) {
    if (!opened) throw new Cancelled();
    const { items, ...rest } = itemsOf(opened.drawn, name, {
      ...here,
      freshId: () => crypto.randomUUID().slice(0, 13),
    });
    opened.items = items;
    return { ...rest, count: items.length };
  },
  madeItems: (from, to) => opened?.items.slice(from, to) ?? [],
  async lookAtMesh(name, bytes) {
    const mesh = await readAnyMesh(name, bytes);
    const kept = isKeptMesh(name) ? null : stlOfMesh(mesh, name);
    return Comlink.transfer({ triangles: trianglesOf(mesh), box: boxOfMesh(mesh), kept }, kept ? [kept.buffer] : []);
  },
  async meshSizes(name, bytes, standings) {
    const mesh = await readAnyMesh(name, bytes);
    return standings.map((s) => standingSize(mesh, s));
  },
  lookAtPicture(name, bytes) {
    const { width, height, greys } = readPicture(name, bytes);
    return { width, height, greys };
  },
  ornamentLook,
  reliefOutlines: outlinesOf,
  reliefBody(field, { width, height, thickness }, title, format) {
    const body = bodyOf(field, width, height);
    const bytes = (format === 'stl' ? writeStl : writeObj)(closedMesh(body, -thickness), title);
    return Comlink.transfer({ bytes, cell: body.cell }, [bytes.buffer]);
  },
  castBody(casting, cold, title) {
    const { mesh, cell } = islandMesh(casting.field, -casting.thickness, cold);
    const bytes = writeStl(mesh, title);
    return Comlink.transfer({ bytes, cell }, [bytes.buffer]);
  },
  keptRelief: keptOf,
  reliefPicture(field) {
    const made = writeHeights(field);
    return Comlink.transfer(made, [made.bytes.buffer]);
  },
  lookAt: (picture) => ({ threshold: bestThreshold(picture), colours: proposedColours(picture) }),
  trace: (ticket, picture, options, progress) =>
    whileWanted(wanted(ticket), () => trace(picture, options, watch(ticket, progress))),
  shapes: (items, task) => shapeWork(items, task, art),
  gauge: (items, radii) => gauge(items, radii, art),
};

/** What takes a processor for longer than a blink. */
const counted =
  <A extends unknown[], T>(work: (...args: A) => T) =>
  (...args: A): T =>
    atWork(() => work(...args));

Comlink.expose({
  ...api,
  shape: counted(api.shape),
  plan: counted(api.plan),
  prove: counted(api.prove),
  compare: counted(api.compare),
  play: counted(api.play),
  fit: counted(api.fit),
  cast: counted(api.cast),
  trace: counted(api.trace),
} satisfies ComputeApi);
