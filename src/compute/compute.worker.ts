import * as Comlink from 'comlink';
import { bestThreshold, proposedColours } from '@/core/artwork/trace/colours';
import { trace } from '@/core/artwork/trace/trace';
import { boundsOfPaths } from '@/core/geometry/path';
import type { Item } from '@/core/artwork/item';
import type { Drawn } from '@/core/exchange/drawn';
import { itemsOf } from '@/core/exchange/items';
import { FontShelf } from '@/core/lettering/shelf';
import { Cancelled, planCut, targetOf } from '@/core/pipeline/planning';
import { writePrograms } from '@/core/pipeline/programs';
import { comparedFindings, placePrograms, prove, type Proof } from '@/core/pipeline/proving';
import { cutAlong } from '@/core/proof/along';
import { lineNear, lineOnTable } from '@/core/proof/lookup';
import type { PlacedProgram } from '@/core/proof/placed';
import { createPlayer, type Player } from '@/core/proof/player';
import { createSimulation } from '@/core/proof/simulate';
import { emptyPlan, type CutPlan, type Target } from '@/core/cuts/kind';
import type { OneSetup } from '@/core/job/job';
import { gauge, readDrawing, shapeWork } from './artwork';
import type { ComputeApi, ReportProgress } from './protocol';

const art = new FontShelf();
/** Tickets up to this one are no longer wanted; shared with the window, so that it is seen while computing. */
let stop: Int32Array | null = null;
/** What was cut last is kept: a changed letter costs one letter. */
const simulation = createSimulation();
/** The drawing that was read last, and the items made of it. */
let opened: { drawn: Drawn; items: Item[] } | null = null;
let player: Player | null = null;
let kept: { key: string; target: Target } | null = null;

function watch(ticket: number, progress: ReportProgress): (done: number) => void {
  let told = 0;
  return (done) => {
    if (stop && Atomics.load(stop, 0) >= ticket) throw new Cancelled();
    const now = performance.now();
    if (now - told < 120) return;
    told = now;
    progress(done);
  };
}

const buffersOf = (plan: CutPlan) => plan.toolpaths.flatMap((t) => [t.motion.kind, t.motion.x, t.motion.y, t.motion.z, t.motion.cx, t.motion.cy, t.motion.feed].map((a) => a.buffer as ArrayBuffer));

/** A copy that passes between threads without being copied again, where the browser allows it. */
function sharedCopy(z: Float32Array): Float32Array {
  if (typeof SharedArrayBuffer === 'undefined') return z.slice();
  const copy = new Float32Array(new SharedArrayBuffer(z.byteLength));
  copy.set(z);
  return copy;
}

/** The programs of the last proof. */
let proven: readonly PlacedProgram[] = [];
let last: Proof | null = null;

const api: ComputeApi = {
  hold: (name) => new Promise((held) => void navigator.locks.request(name, () => (held(), new Promise<never>(() => {})))),
  setStop(shared) {
    if (shared) stop = new Int32Array(shared);
  },
  putFonts(files) {
    for (const [id, bytes] of Object.entries(files)) art.put(id, bytes);
  },
  plan(ticket, job, cutId, progress) {
    const cut = job.cuts.find((c) => c.id === cutId)!;
    let plan: CutPlan;
    try {
      plan = planCut(job, cut, art, watch(ticket, progress));
    } catch (e) {
      if (e instanceof Cancelled) throw e;
      // A cut that fails does not stop the others: it says so itself.
      console.error(e);
      plan = emptyPlan([{ level: 'problem', text: 'This cut could not be planned: a fault of Mirvak, not of your job. Undo the last change of it, or take artwork out of it until it is planned again.' }]);
    }
    return Comlink.transfer(plan, buffersOf(plan));
  },
  prove(ticket, job, plans, cell, progress) {
    const byId = new Map(plans);
    const programs = writePrograms(job, byId);
    const placed = placePrograms(job, programs);
    const proof = prove(job, placed, programs.tools, byId, cell, watch(ticket, progress), simulation);
    // The simulation keeps its field; the window gets a copy, and its workers see the same one.
    const field = { ...proof.field, z: sharedCopy(proof.field.z) };
    player = createPlayer(job, placed, programs.tools);
    proven = placed;
    last = proof;
    const result = {
      files: programs.files,
      tools: [...programs.tools].map(([tool, c]) => ({ tool, cutterId: c.id })),
      field,
      findings: proof.findings,
      compared: false,
      times: proof.times,
      minutes: proof.minutes,
      toolChanges: proof.toolChanges,
      standing: proof.standing,
      moves: player.moves,
    };
    return result;
  },
  compare(ticket, progress) {
    if (!last) throw new Cancelled();
    return comparedFindings(last, art, watch(ticket, progress));
  },
  play(ticket, move, cell, only) {
    if (!player) throw new Cancelled();
    const state = player.to(move, cell, only, watch(ticket, () => {}));
    // The player goes on cutting its own field.
    return { ...state, field: { ...state.field, z: sharedCopy(state.field.z) } };
  },
  lineOnTable: (file, line) => lineOnTable(proven, file, line),
  lineNear: (x, y, reach) => lineNear(proven, x, y, reach),
  along: (x0, y0, x1, y1, count) => last && cutAlong(proven, last.input.tools, { x0, y0, x1, y1 }, count),
  section(job: OneSetup, x0, y0, x1, y1, count) {
    const key = JSON.stringify([job.blank, job.items, job.cuts, job.cutters]);
    if (kept?.key !== key) kept = { key, target: targetOf(job, art) };
    const target = new Float64Array(count);
    for (let i = 0; i < count; i++) {
      const f = i / (count - 1);
      target[i] = kept.target(x0 + (x1 - x0) * f, y0 + (y1 - y0) * f);
    }
    return Comlink.transfer({ target }, [target.buffer]);
  },
  openDrawing(name, bytes) {
    opened = { drawn: readDrawing(name, bytes), items: [] };
    const b = boundsOfPaths(opened.drawn.things.flatMap((t) => t.paths));
    return { unitKnown: opened.drawn.unitKnown, width: b ? b.x1 - b.x0 : 0, height: b ? b.y1 - b.y0 : 0 };
  },
  makeItems(name, here) {
    if (!opened) throw new Cancelled();
    const { items, ...rest } = itemsOf(opened.drawn, name, { ...here, freshId: () => crypto.randomUUID().slice(0, 13) });
    opened.items = items;
    return { ...rest, count: items.length };
  },
  madeItems: (from, to) => opened?.items.slice(from, to) ?? [],
  lookAt: (picture) => ({ threshold: bestThreshold(picture), colours: proposedColours(picture) }),
  trace: (ticket, picture, options, progress) => trace(picture, options, watch(ticket, progress)),
  shapes: (items, task) => shapeWork(items, task, art),
  gauge: (items, radii) => gauge(items, radii, art),
};

Comlink.expose(api);
