/**
 * Throws broken files at the readers in the very workers of the built application, in Chromium: `npm run fuzz:workers -- 600`
 * (seconds; 60 when not said). A worker has to answer within two seconds, in words of ours. What does not is printed with the
 * kind and the seed that give the file again: `npm run fuzz:workers -- 0 KIND SEED`. The memory of the largest process is looked
 * at as it goes on. Ends with 1 when there was anything.
 */
import os from 'node:os';
import path from 'node:path';
import type { Page } from 'puppeteer-core';
import { broken, FOREIGN, goodFiles, SLOW_MS } from './broken';
import { openBrowser } from '../e2e/browser';
import { Maker } from '../e2e/maker';
import { processesOf, saidOf } from '../e2e/processes';
import { startServer } from '../e2e/server.mjs';
import { seeded } from '../src/core/testing/seeded';

const seconds = Number(process.argv[2] ?? 60);
const MOST_MEMORY = 1e9;
const BATCH = 200;
type Kind = 'svg' | 'dxf' | 'job.json' | '.mirvak' | 'backup' | 'font';
const kinds: readonly Kind[] = ['svg', 'dxf', 'svg', 'dxf', 'job.json', '.mirvak', 'backup', 'font'];

interface Workers {
  readonly compute: string;
  readonly archive: string;
  readonly font: string;
}

interface Answer {
  readonly took: number;
  readonly error: { readonly name: string; readonly message: string } | null;
  readonly hung: boolean;
}

/** In the page: asks workers to read files, one after the other, as the application asks them. */
async function readAll(url: Workers, kind: string, files: readonly string[], patience: number): Promise<Answer[]> {
  const bytesOf = (b: string) => Uint8Array.from(atob(b), (c) => c.charCodeAt(0));
  const out: Answer[] = [];
  const drawing = kind === 'svg' || kind === 'dxf';
  const from = drawing ? url.compute : kind === 'font' ? url.font : url.archive;
  const { workerOptions } = window as unknown as { workerOptions: WorkerOptions };
  let at: Worker | null = null;
  let id = 0;
  for (const f of files) {
    const bytes = bytesOf(f);
    const worker: Worker = (at ??= new Worker(from, workerOptions));
    const begun = performance.now();
    const answer = await new Promise<Answer>((done) => {
      const mine = `${++id}`;
      const timer = setTimeout(() => done({ took: performance.now() - begun, error: null, hung: true }), patience);
      const end = (error: Answer['error']) => (
        clearTimeout(timer),
        done({ took: performance.now() - begun, error, hung: false })
      );
      worker.onerror = () => end({ name: 'died', message: '' });
      worker.onmessage = (e: MessageEvent) => {
        const d = e.data as
          | {
              id?: string;
              value?: { isError?: boolean; value?: { name: string; message: string } };
              error?: { name: string; message: string };
            }
          | string
          | null;
        if (kind === 'font') return end(typeof d === 'string' ? { name: 'FontError', message: d } : null);
        if (typeof d !== 'object' || d === null) return;
        if (!drawing) return end(d.error ?? null);
        if (d.id === mine) end(d.value?.isError ? d.value.value! : null);
      };
      if (drawing)
        worker.postMessage({
          id: mine,
          type: 'APPLY',
          path: ['openDrawing'],
          argumentList: [
            { type: 'RAW', value: `f.${kind}` },
            { type: 'RAW', value: bytes },
          ],
        });
      else if (kind === 'font') worker.postMessage(bytes);
      else worker.postMessage({ task: kind === 'backup' ? 'unpackBackup' : 'unpackJob', args: [bytes] });
    });
    out.push(answer);
    if (answer.hung || answer.error?.name === 'died') {
      worker.terminate();
      at = null;
    }
  }
  at?.terminate();
  return out;
}

/** Memory of the largest of this browser's processes, bytes. */
const largest = (browser: number): number =>
  Math.max(...processesOf(browser).map((p) => 1024 * Number(/VmRSS:\s*(\d+)/.exec(saidOf(p, 'status'))?.[1] ?? 0)));

const { url, server } = await startServer();
const { browser, close } = await openBrowser();
let code = 2;
try {
  code = await fuzz();
} finally {
  await close();
  server.kill('SIGTERM');
}
process.exit(code);

/** Where the application starts its workers from, seen as a maker uses them. */
async function workersOf(page: Page): Promise<Workers> {
  // As text: what tsx makes of a function asks for a helper that the page has not got.
  await page.evaluateOnNewDocument(`
    window.__name = (f) => f;
    window.seenWorkers = [];
    window.Worker = class extends Worker {
      constructor(from, options) {
        super(from, options);
        window.seenWorkers.push(String(from));
        window.workerOptions = options;
      }
    };
  `);
  const seen = () => page.evaluate(() => (window as unknown as { seenWorkers: string[] }).seenWorkers);
  const since = async (before: readonly string[]) => (await seen()).slice(before.length).at(-1)!;
  const wrong = path.resolve('package.json');
  await page.goto(url);
  const maker = new Maker(page);
  await maker.find('button', 'New job');
  let before = await seen();
  const [files] = await Promise.all([page.waitForFileChooser(), maker.press('Import a job')]);
  await files.accept([wrong]);
  await maker.sees('was not imported');
  const archive = await since(before);
  before = await seen();
  await maker.press('New job');
  await maker.stage('Artwork');
  await maker.press('Lettering');
  const [compute] = (await seen()).slice(before.length);
  before = await seen();
  const [fonts] = await Promise.all([page.waitForFileChooser(), maker.press('Add a font file')]);
  await fonts.accept([wrong]);
  await maker.sees('cannot be used');
  return { compute, archive, font: await since(before) };
}

async function fuzz(): Promise<number> {
  const page = await browser.newPage();
  const workers = await workersOf(page);
  const garbage = await page.createCDPSession();
  await garbage.send('HeapProfiler.enable');
  let n = 0;
  let bad = 0;
  let ended = 0;
  let most = 0;
  const batch = async (kind: Kind, seeds: readonly number[]) => {
    // A good file first: whoever does not take that is not the worker that is meant, and its start is not to be timed.
    const files = [goodFiles[kind], ...seeds.map((s) => broken(goodFiles[kind], seeded(s)))];
    const [good, ...answers] = await page.evaluate(
      readAll,
      workers,
      kind,
      files.map((f) => Buffer.from(f).toString('base64')),
      2 * SLOW_MS,
    );
    if (good.hung || good.error) throw new Error(`A good ${kind} is not read: ${JSON.stringify(good)}`);
    for (const [i, a] of answers.entries()) {
      const why = wrongWith(a);
      n++;
      // The application ends what keeps a font's reader busy, and says so.
      if (kind === 'font' && a.hung) ended++;
      else if (why) {
        bad++;
        console.log(`${kind}, seed ${seeds[i]}: ${why}`);
      }
    }
  };
  if (process.argv[4]) await batch(process.argv[3] as Kind, [Number(process.argv[4])]);
  const end = Date.now() + 1000 * seconds;
  const first = Date.now() & 0x7fffffff;
  let turn = 0;
  const lane = async () => {
    while (Date.now() < end && bad < 20) {
      const begin = first + BATCH * turn;
      await batch(
        kinds[turn++ % kinds.length],
        Array.from({ length: BATCH }, (_, i) => begin + i),
      );
      // What this window itself has left of handing files over is no memory of a reader.
      await garbage.send('HeapProfiler.collectGarbage');
      most = Math.max(most, largest(browser.process()!.pid!));
    }
  };
  await Promise.all(Array.from({ length: os.availableParallelism() }, lane));
  console.log(
    `${n} broken files in the workers of the application, ${bad} not taken as they should be, ${ended} fonts whose reader had to be ended; at most ${Math.round(most / 1e6)} MB in a process`,
  );
  return bad || most > MOST_MEMORY ? 1 : 0;
}

/** What is wrong with how a file was taken; null for nothing. */
function wrongWith({ hung, took, error }: Answer): string | null {
  if (hung) return 'no answer';
  if (took > SLOW_MS) return `took ${Math.round(took)} ms`;
  if (!error) return null;
  const foreign =
    FOREIGN.exec(error.message)?.[0] ?? (/^(ExchangeError|JobError|FontError)$/.test(error.name) ? null : error.name);
  return foreign && `${foreign}: ${error.message}`;
}
