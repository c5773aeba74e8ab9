import * as Comlink from 'comlink';
import { reliefCell } from '@/core/pipeline/shaping';
import { holdAlive } from './alive';
import { emptyKept } from './keeping';
import * as engine from './engine';
import { bringFonts, lackFonts } from './fonts';
import { bringReliefFiles } from './reliefFiles';
import { Receiver, Sender } from './parcel';
import { computePool } from './pool';
import { portrayed } from './portrait';
import type { EngineApi } from './protocol';
import { askProver } from './questions';
import { takeMark } from './stepAside';

const parcels = new Receiver();
/** The number of the job that was given last. */
let number = 0;
let surface: AbortController | null = null;

/** Tells the window what is worked out, whenever that changes: several changes at once are told together. */
function tellOver(port: MessagePort): () => void {
  const sender = new Sender();
  let due = false;
  const tell = () => {
    due = false;
    port.postMessage(sender.pack({ ...engine.told(), of: number }));
  };
  return () => {
    if (!due) queueMicrotask(tell);
    due = true;
  };
}
let tellSoon: () => void = () => {};
engine.results.subscribe(() => tellSoon());

const prover = () => computePool().prover;
const api: EngineApi = {
  hold: holdAlive,
  // What is given up here is given up by calls.
  setMarks: (_, page) => takeMark(page),
  tellOver(port) {
    tellSoon = tellOver(port);
  },
  putFonts: bringFonts,
  putReliefFiles(files) {
    bringReliefFiles(files);
    engine.followRelief();
  },
  lackFonts: (why) => lackFonts(new Error(why)),
  beginWorkers: () => void computePool(),
  setJob(n, parcel) {
    const job = parcel && parcels.unpack(parcel);
    if (n < number) return;
    number = n;
    engine.setJob(job?.whole ?? null, job?.shown ?? null);
    // Where nothing has changed, that is what is to be told.
    tellSoon();
  },
  recallThrough: engine.recallThrough,
  setQuality: engine.setQuality,
  stopWork: engine.stopWork,
  resumeWork: engine.resumeWork,
  look: engine.look,
  emptyKept,
  portrayed(job) {
    surface = new AbortController();
    return portrayed(parcels.unpack(job), surface.signal);
  },
  shapedAside(parcel) {
    const job = parcels.unpack(parcel);
    const { shaper } = computePool();
    return shaper.ask((s, pack) =>
      s.shape(
        shaper.next(),
        pack(job),
        reliefCell(job),
        shaper.hearing(() => {}),
      ),
    );
  },
  callOffSurface: () => surface?.abort(),
  section: engine.section,
  play: (setup, move, cell, only) => prover().ask((p) => p.play(prover().next(), setup, move, cell, only)),
  lineOnTable: (setup, file, line) => prover().ask((p) => p.lineOnTable(setup, file, line)),
  lineNear: (setup, x, y, reach) => prover().ask((p) => p.lineNear(setup, x, y, reach)),
  along: (setup, x0, y0, x1, y1, count) => prover().ask((p) => p.along(setup, x0, y0, x1, y1, count)),
  cast: (setup, values) => askProver((p, ticket, progress) => p.cast(ticket, setup, values, progress)),
  fit: (pair) => askProver((p, ticket, progress) => p.fit(ticket, pair, progress)),
};

Comlink.expose(api);
