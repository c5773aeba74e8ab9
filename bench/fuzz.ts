/**
 * Throws broken files at every reader for as long as it is told: `npm run fuzz -- 120` (seconds; 60 when not said). Good files
 * are mutated byte by byte and piece by piece. A reader may refuse a file by its own error; anything else, or more than
 * two seconds, is printed with the seed that gives the file again: `npm run fuzz -- 0 SEED`. Some readers alone:
 * `npm run fuzz -- 600 - stl,obj,3mf,gltf,png`. Ends with 1 when there was any.
 */
import { runInThisContext } from 'node:vm';
import { unpackJob } from '../src/core/job/archive';
import { unpackBackup } from '../src/core/job/backup';
import { JobError } from '../src/core/job/migrate';
import { ExchangeError } from '../src/core/exchange/drawn';
import { readCutters } from '../src/core/exchange/cutterSheet';
import { itemsOf } from '../src/core/exchange/items';
import { readDxf } from '../src/core/exchange/dxf/read';
import { zipSync } from 'fflate';
import { readAnyMesh, readMesh } from '../src/core/exchange/mesh/read';
import { readPicture } from '../src/core/exchange/picture/read';
import { gridOf } from '../src/core/relief/field';
import { meshHeights } from '../src/core/relief/raster';
import { readSvg } from '../src/core/exchange/svg/read';
import { testShaper } from '../src/core/testing/fonts';
import { FontError, loadFont } from '../src/core/lettering/font';
import { openedFont } from '../src/core/lettering/openedFont';
import { parseProgram, ProgramError } from '../src/core/program/parser';
import { seeded } from '../src/core/testing/seeded';
import { broken, FOREIGN, goodFiles, SLOW_MS } from './broken';

const here = { blank: { width: 300, height: 200 }, layers: [], freshId: () => 'x' };
const seen = gridOf(20, 20, 0.5);
const said = (b: Uint8Array) => new TextDecoder().decode(b);

function saysNothingForeign(words: string): void {
  const word = FOREIGN.exec(words);
  if (word) throw new Error(`says "${word[0]}": ${words.slice(0, 200)}`);
}
const names = process.argv[4]?.split(',');
/** A worker of the app may take so much, bytes. */
const MOST_MEMORY = 1e9;

const readers: { name: keyof typeof goodFiles; read: (b: Uint8Array) => unknown; refusal: (e: unknown) => boolean }[] =
  [
    {
      name: 'svg',
      read: (b) => itemsOf(readSvg(said(b), 'f.svg'), 'f', here),
      refusal: (e) => e instanceof ExchangeError,
    },
    {
      name: 'dxf',
      read: (b) => itemsOf(readDxf(said(b), 'f.dxf'), 'f', here),
      refusal: (e) => e instanceof ExchangeError,
    },
    { name: 'stl', read: (b) => meshHeights(readMesh('f.stl', b), seen), refusal: (e) => e instanceof ExchangeError },
    { name: 'obj', read: (b) => meshHeights(readMesh('f.obj', b), seen), refusal: (e) => e instanceof ExchangeError },
    {
      name: '3mf',
      read: async (b) => meshHeights(await readAnyMesh('f.3mf', b), seen),
      refusal: (e) => e instanceof ExchangeError,
    },
    {
      name: '3mf model',
      read: async (b) => meshHeights(await readAnyMesh('f.3mf', zipSync({ 'a.model': b })), seen),
      refusal: (e) => e instanceof ExchangeError,
    },
    {
      name: 'gltf',
      read: async (b) => meshHeights(await readAnyMesh('f.gltf', b), seen),
      refusal: (e) => e instanceof ExchangeError,
    },
    { name: 'png', read: (b) => readPicture('f.png', b), refusal: (e) => e instanceof ExchangeError },
    { name: 'job.json', read: unpackJob, refusal: (e) => e instanceof JobError },
    { name: '.mirvak', read: unpackJob, refusal: (e) => e instanceof JobError },
    {
      name: 'backup',
      read: (b) => unpackBackup(b).jobs.map((j) => unpackJob(j.bytes)),
      refusal: (e) => e instanceof JobError,
    },
    {
      name: 'cutters',
      read: (b) =>
        saysNothingForeign(
          readCutters(said(b), 'f.json')
            .refused.map((f) => f.why)
            .join(' '),
        ),
      refusal: () => false,
    },
    {
      name: 'font',
      read: (b) => loadFont(b, 'f.woff', testShaper, openedFont).set('Ab& fi', { kerning: true, ligatures: true }),
      refusal: (e) => e instanceof FontError,
    },
    { name: 'program', read: (b) => parseProgram(said(b)), refusal: (e) => e instanceof ProgramError },
  ];

/** Those that files are thrown at: all, or the named ones. */
const asked = readers.filter((q) => !names || names.includes(q.name));

async function once(seed: number): Promise<string | null> {
  const r = seeded(seed);
  const reader = asked[Math.floor(r() * asked.length)];
  const file = broken(goodFiles[reader.name], r);
  const begun = performance.now();
  let why: string | null = null;
  try {
    // A reader that hangs is stopped after twice the time.
    Object.assign(globalThis, { readNow: () => reader.read(file) });
    await runInThisContext('readNow()', { timeout: reader.name === 'font' ? 1000 : 2 * SLOW_MS });
  } catch (e) {
    // Fonts are first read aside by the app, in a worker that is given up after some seconds.
    if (reader.name === 'font' && (e as { code?: string }).code === 'ERR_SCRIPT_EXECUTION_TIMEOUT') return null;
    // Words of the file itself are shown as they stand there, in quotes.
    const foreign =
      reader.refusal(e) && reader.name !== 'program' && reader.name !== 'font'
        ? FOREIGN.exec((e as Error).message.replace(/"[^"]*"/g, ''))
        : null;
    if (foreign) why = `says "${foreign[0]}": ${(e as Error).message}`;
    if (!reader.refusal(e))
      why = `${(e as Error).name}: ${(e as Error).message}\n${(e as Error).stack?.split('\n').slice(1, 4).join('\n')}`;
  }
  const took = performance.now() - begun;
  if (!why && took > SLOW_MS) why = `took ${took.toFixed(0)} ms`;
  const held = process.memoryUsage();
  if (!why && held.heapUsed + held.arrayBuffers > MOST_MEMORY)
    why = `holds ${Math.round((held.heapUsed + held.arrayBuffers) / 1e6)} MB`;
  return why && `${reader.name}, seed ${seed}: ${why}`;
}

// The font reader prints what it leaves out.
console.warn = console.error = () => {};
const seconds = Number(process.argv[2] ?? 60);
const only = process.argv[3];
if (only && only !== '-') console.log((await once(Number(only))) ?? 'read, or refused properly');
else {
  const end = Date.now() + 1000 * seconds;
  const first = Date.now() & 0x7fffffff;
  let n = 0;
  let bad = 0;
  for (; Date.now() < end && bad < 10; n++) {
    const why = await once(first + n);
    if (why) {
      bad++;
      console.log(why);
    }
  }
  console.log(`${n} broken files, ${bad} not taken as they should be`);
  process.exitCode = bad ? 1 : 0;
}
