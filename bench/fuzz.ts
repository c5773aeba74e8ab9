/**
 * Throws broken files at every reader for as long as it is told: `npm run fuzz -- 120` (seconds; 60 when not said). Good files
 * are mutated byte by byte and piece by piece. A reader may refuse a file by its own error; anything else, or more than
 * two seconds, is printed with the seed that gives the file again: `npm run fuzz -- 0 SEED`. Ends with 1 when there was any.
 */
import { readFileSync } from 'node:fs';
import { runInThisContext } from 'node:vm';
import { demoJobs } from '../src/core/job/demo';
import { packJob, unpackJob } from '../src/core/job/archive';
import { packBackup, unpackBackup } from '../src/core/job/backup';
import { JobError } from '../src/core/job/migrate';
import { ExchangeError } from '../src/core/exchange/drawn';
import { readCutters } from '../src/core/exchange/cutterSheet';
import { itemsOf } from '../src/core/exchange/items';
import { readDxf } from '../src/core/exchange/dxf/read';
import { writeDxf } from '../src/core/exchange/dxf/write';
import { readSvg } from '../src/core/exchange/svg/read';
import { fontCatalogue } from '../src/core/lettering/catalogue';
import { shippedLibrary } from '../src/core/cutters/library';
import { FontError, loadFont } from '../src/core/lettering/font';
import { parseProgram, ProgramError } from '../src/core/program/parser';
import { circlePath } from '../src/core/geometry/path';
import { seeded } from '../src/core/testing/seeded';

const SLOW_MS = 2000;

const text = (s: string) => new TextEncoder().encode(s);
const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="60mm" viewBox="0 0 80 60"><defs><style>.a{fill:none;stroke:red}</style><g id="g"><path d="M1 1C5 9 9-5 20 4S30 8 40 2A6 4 20 0 1 50 9Q55 1 60 9Z"/></g><symbol id="s" viewBox="0 0 4 4"><circle cx="2" cy="2" r="1"/></symbol></defs><use href="#g" transform="translate(2 3)rotate(10)scale(.5)"/><use href="#s" width="8" height="8"/><g class="a" transform="matrix(1 0 .2 1 3 4)"><rect x="1" y="2" width="9" height="5" rx="1"/><polygon points="1,1 9,2 4,8"/><ellipse cx="20" cy="20" rx="7" ry="3"/></g><text x="3" y="50" font-family="Cinzel" font-size="8">Lock</text></svg>`;
const dxf = writeDxf([{ name: 'a', layer: 'Ink', colour: '#1e2a2f', fill: 'nonzero', paths: [circlePath(5, 5, 3), { x: 0, y: 0, segments: [{ k: 'line', x: 9, y: 1 }, { k: 'arc', x: 1, y: 9, cx: 1, cy: 1, ccw: true }, { k: 'cubic', x1: 4, y1: 4, x2: 8, y2: 2, x: 0, y: 0 }], closed: true }] }]);
const job = demoJobs['lock-cottage-board']();
const here = { blank: { width: 300, height: 200 }, layers: [], freshId: () => 'x' };

const readers: { name: string; good: Uint8Array; read: (b: Uint8Array) => unknown; refusal: (e: unknown) => boolean }[] = [
  { name: 'svg', good: text(svg), read: (b) => itemsOf(readSvg(new TextDecoder().decode(b), 'f.svg'), 'f', here), refusal: (e) => e instanceof ExchangeError },
  { name: 'dxf', good: text(dxf), read: (b) => itemsOf(readDxf(new TextDecoder().decode(b), 'f.dxf'), 'f', here), refusal: (e) => e instanceof ExchangeError },
  { name: 'job.json', good: text(JSON.stringify(job)), read: unpackJob, refusal: (e) => e instanceof JobError },
  { name: '.mirvak', good: packJob(job), read: unpackJob, refusal: (e) => e instanceof JobError },
  { name: 'backup', good: packBackup({ made: '2026-11-27', jobs: [{ id: 'a', name: 'Lock', updated: 1, bytes: packJob(job) }], kept: { cutters: shippedLibrary().slice(0, 5), groups: [], machines: [], dialects: [], recipes: [], unit: 'mm' } }), read: (b) => unpackBackup(b).jobs.map((j) => unpackJob(j.bytes)), refusal: (e) => e instanceof JobError },
  { name: 'cutters', good: text(JSON.stringify({ cutters: shippedLibrary().slice(0, 5) })), read: (b) => saysNothingForeign(readCutters(new TextDecoder().decode(b), 'f.json').refused.map((f) => f.why).join(' ')), refusal: () => false },
  { name: 'font', good: readFileSync(`node_modules/${fontCatalogue[0].source}`), read: (b) => [...'Ab&'].map((c) => loadFont(b, 'f.woff').glyph(c)), refusal: (e) => e instanceof FontError },
  { name: 'program', good: text('G21 G90 G17\nT1 M6\nS12000 M3\nG0 X1 Y2 Z5\nG1 Z-1 F300\nG3 X4 Y5 I2 J0 F900\nX9\nG0 Z5\nM5\nM30\n'), read: (b) => parseProgram(new TextDecoder().decode(b)), refusal: (e) => e instanceof ProgramError },
];

/** What a parser or the language says is no word for a maker. */
const FOREIGN = /\b(\w*Error|undefined|NaN|Unexpected token|is not a function|Cannot read|Invalid (input|array|string)|expected \w+, received)\b/;
function saysNothingForeign(said: string): void {
  const word = FOREIGN.exec(said);
  if (word) throw new Error(`says "${word[0]}": ${said.slice(0, 200)}`);
}
/** A worker of the app may take so much, bytes. */
const MOST_MEMORY = 1e9;

const pieces = ['NaN', '1e999', '-', '""', '<', '/>', '&', '0', '9999999999', '\0', '#g', 'url(#g)', 'M', 'A', 'null', '{', '[', '1e-320', 'EOF\n', 'G3 ', '(', ' '];

function broken(good: Uint8Array, r: () => number): Uint8Array {
  let b = Array.from(good);
  const times = 1 + Math.floor(r() * r() * 30);
  for (let i = 0; i < times; i++) {
    const at = Math.floor(r() * b.length);
    const kind = r();
    if (kind < 0.35) b[at] = Math.floor(r() * 256);
    else if (kind < 0.5) b.splice(at, 1 + Math.floor(r() * 12));
    else if (kind < 0.65) b.splice(at, 0, ...b.slice(at, at + Math.floor(r() * 60)));
    else if (kind < 0.9) b.splice(at, 0, ...text(pieces[Math.floor(r() * pieces.length)]));
    else if (kind < 0.95) b = b.slice(0, at);
    else b.splice(at, 8, ...b.slice(Math.floor(r() * b.length)).slice(0, 8));
  }
  return Uint8Array.from(b);
}

function once(seed: number): string | null {
  const r = seeded(seed);
  const reader = readers[Math.floor(r() * readers.length)];
  const file = broken(reader.good, r);
  const begun = performance.now();
  let why: string | null = null;
  try {
    // A reader that hangs is stopped after twice the time.
    Object.assign(globalThis, { readNow: () => void reader.read(file) });
    runInThisContext('readNow()', { timeout: reader.name === 'font' ? 1000 : 2 * SLOW_MS });
  } catch (e) {
    // Fonts are first read aside by the app, in a worker that is given up after some seconds.
    if (reader.name === 'font' && (e as { code?: string }).code === 'ERR_SCRIPT_EXECUTION_TIMEOUT') return null;
    const foreign = reader.refusal(e) && reader.name !== 'program' && reader.name !== 'font' ? FOREIGN.exec((e as Error).message) : null;
    if (foreign) why = `says "${foreign[0]}": ${(e as Error).message}`;
    if (!reader.refusal(e)) why = `${(e as Error).name}: ${(e as Error).message}\n${(e as Error).stack?.split('\n').slice(1, 4).join('\n')}`;
  }
  const took = performance.now() - begun;
  if (!why && took > SLOW_MS) why = `took ${took.toFixed(0)} ms`;
  const held = process.memoryUsage();
  if (!why && held.heapUsed + held.arrayBuffers > MOST_MEMORY) why = `holds ${Math.round((held.heapUsed + held.arrayBuffers) / 1e6)} MB`;
  return why && `${reader.name}, seed ${seed}: ${why}`;
}

// The font reader prints what it leaves out.
console.warn = console.error = () => {};
const seconds = Number(process.argv[2] ?? 60);
const only = process.argv[3];
if (only) console.log(once(Number(only)) ?? 'read, or refused properly');
else {
  const end = Date.now() + 1000 * seconds;
  const first = Date.now() & 0x7fffffff;
  let n = 0;
  let bad = 0;
  for (; Date.now() < end && bad < 10; n++) {
    const why = once(first + n);
    if (why) {
      bad++;
      console.log(why);
    }
  }
  console.log(`${n} broken files, ${bad} not taken as they should be`);
  process.exitCode = bad ? 1 : 0;
}
