import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { z } from 'zod';
import { packJob, unpackJob, type Assets } from '../core/job/archive';
import { demoJobs } from '../core/job/demo';
import { jobSchema, type Job, type OneSetup } from '../core/job/job';
import { eachSetup } from '../core/job/oneSetup';
import { placePrograms, prove, type Proof } from '../core/pipeline/proving';
import { foundBy, type Found } from '../core/proof/faces';
import { runJob } from '../core/pipeline/run';
import { reportOf, setupOf } from '../core/pipeline/report';
import { folderOf, writePrograms } from '../core/pipeline/programs';
import { dialectOf } from '../core/program/dialect';
import { bytesOf } from '../core/program/text';
import { planCut } from '../core/pipeline/planning';
import { assetsOf } from '@/core/job/assets';
import { bodyOf, closedMesh } from '../core/exchange/mesh/body';
import { writeStl } from '../core/exchange/mesh/writeStl';
import { ReliefShelf } from '../core/pipeline/reliefShelf';
import { reliefCell, shapedWhenAsked, shapeRelief, type GiveRelief } from '../core/pipeline/shaping';
import type { HeightField } from '../core/relief/field';
import { fontsFromPackages } from './fonts';

const USAGE = `mirvak plan JOB --out DIR [--files one|cutter|cut] [--dialect ID]
mirvak proof JOB --cell MM --out DIR
mirvak relief JOB --out DIR [--cell MM]
mirvak schema
mirvak demo NAME --out FILE        (${Object.keys(demoJobs).join(', ')})`;

class UsageError extends Error {}

function open(file: string | undefined): { job: Job; assets: Assets } {
  if (!file) throw new UsageError('name a job file');
  let bytes: Uint8Array;
  try {
    bytes = readFileSync(file);
  } catch {
    throw new Error(`${file} cannot be read.`);
  }
  return unpackJob(bytes);
}

/** Coarse enough to be quick, fine enough to see what checks look for. */
const cellFor = (job: OneSetup) => Math.max(0.05, Math.sqrt((job.blank.width * job.blank.height) / 2e6));

function main(args: string[]): number {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      out: { type: 'string' },
      files: { type: 'string' },
      dialect: { type: 'string' },
      cell: { type: 'string' },
      help: { type: 'boolean', short: 'h' },
    },
  });
  const [command, target] = positionals;
  const out = () => {
    if (!values.out) throw new UsageError('say where with --out');
    return values.out;
  };
  if (values.help || !command) {
    console.log(USAGE);
    return command || values.help ? 0 : 1;
  }
  if (command === 'schema') {
    console.log(JSON.stringify(z.toJSONSchema(jobSchema), null, 2));
    return 0;
  }
  if (command === 'demo') {
    const make = demoJobs[target ?? ''];
    if (!make)
      throw new UsageError(`there is no demo job "${target ?? ''}"; there are ${Object.keys(demoJobs).join(', ')}`);
    const file = out();
    mkdirSync(path.dirname(path.resolve(file)), { recursive: true });
    writeFileSync(file, file.endsWith('.json') ? JSON.stringify(make(), null, 2) : packJob(make()));
    return 0;
  }
  if (command !== 'plan' && command !== 'proof' && command !== 'relief')
    throw new UsageError(`there is no command "${command}"`);
  const { job: whole, assets } = open(target);
  const art = fontsFromPackages();
  for (const f of assetsOf(whole, 'font')) if (assets[f.file]) art.put(f.id, assets[f.file]);
  const files = values.files as OneSetup['run']['files'] | undefined;
  if (files && !['one', 'cutter', 'cut'].includes(files)) throw new UsageError('--files is one, cutter or cut');
  const cell = Number(values.cell);
  if (command === 'relief') return reliefs(whole, assets, art, out(), values.cell === undefined ? null : cell);
  if (command === 'proof') {
    if (!(cell > 0)) throw new UsageError('--cell takes a size in mm, such as 0.1');
    for (const { blank } of eachSetup(whole))
      if ((blank.width / cell) * (blank.height / cell) > 4e8)
        throw new Error('That is more than 400 million cells. Take a larger --cell.');
  }
  // Before anything is planned, which takes a while.
  for (const { run } of eachSetup(whole)) dialectOf(values.dialect ?? run.dialect, run.dialects);
  const dir = out();
  const proofs = new Map<string, Proof>();
  const shelf = shelfOf(whole, assets);
  let findings = 0;
  for (const job of eachSetup(whole)) {
    const { after, id, name } = job.at;
    const size = command === 'plan' ? cellFor(job) : cell;
    const before = after && {
      faces: foundBy(proofs.get(after.setup)!.left, after.turned, job.blank, size),
      from: whole.setups.find((s) => s.id === after.setup)!.name,
    };
    const to = job.at.only ? dir : path.join(dir, folderOf(job));
    mkdirSync(to, { recursive: true });
    const relief = shapedWhenAsked(job, { art, ...shelf, progress: () => {} });
    const proof =
      command === 'plan'
        ? plan(job, art, to, before, relief, { files, dialect: values.dialect })
        : proveOnly(job, art, to, before, cell, relief);
    proofs.set(id, proof);
    findings += proof.findings.length;
    if (command === 'plan')
      for (const f of [...proof.findings, ...proof.stays])
        console.log(`${job.at.only ? '' : `${name}: `}${f.check}: ${f.text}`);
  }
  return findings ? 2 : 0;
}

type Art = ReturnType<typeof fontsFromPackages>;

/** Writes the programs of a set-up, its report and its sheet into a folder. */
function plan(
  job: OneSetup,
  art: Art,
  to: string,
  found: Found | null,
  relief: GiveRelief,
  options: { files?: OneSetup['run']['files']; dialect?: string },
): Proof {
  const { plans, programs, proof } = runJob(job, art, cellFor(job), options, () => {}, found, relief);
  for (const f of programs.files) writeFileSync(path.join(to, f.name), bytesOf(f.chunks));
  writeFileSync(path.join(to, 'report.json'), JSON.stringify(reportOf(job, programs, proof), null, 1));
  writeFileSync(path.join(to, 'setup.json'), JSON.stringify(setupOf(job, programs, plans), null, 1));
  return proof;
}

/** The files of a job that its reliefs are made of. */
function shelfOf(whole: Job, assets: Assets): ReliefShelf {
  const shelf = new ReliefShelf();
  for (const { id, type, name, file } of whole.assets)
    if (type !== 'font' && assets[file]) shelf.put(id, { type, name, bytes: assets[file] });
  return shelf;
}

/** Writes the relief of each set-up that has one, as heights and as a closed body. */
function reliefs(whole: Job, assets: Assets, art: Art, dir: string, cell: number | null): number {
  if (cell !== null && !(cell > 0)) throw new UsageError('--cell takes a size in mm, such as 0.1');
  const shelf = shelfOf(whole, assets);
  const setups = eachSetup(whole).filter((s) => s.relief.forms.some((f) => f.visible));
  if (!setups.length) throw new Error('This job has no relief.');
  let remarks = 0;
  for (const job of setups) {
    const to = job.at.only ? dir : path.join(dir, folderOf(job));
    mkdirSync(to, { recursive: true });
    const size = reliefCell(cell === null ? job : { ...job, relief: { ...job.relief, cell } });
    const shaped = shapeRelief(job, size, { art, mesh: shelf.mesh, picture: shelf.picture, progress: () => {} });
    writeField(to, 'relief', shaped.field);
    writeFileSync(
      path.join(to, 'relief.stl'),
      writeStl(closedMesh(bodyOf(shaped.field, job.blank.width, job.blank.height), -job.blank.thickness), job.name),
    );
    for (const f of job.relief.forms) {
      const said = [shaped.remarks[f.id], shaped.notes[f.id]].filter(Boolean);
      if (shaped.remarks[f.id]) remarks++;
      for (const words of said) console.log(`${job.at.only ? '' : `${job.at.name}: `}${f.name}: ${words}`);
    }
  }
  return remarks ? 2 : 0;
}

/** Writes heights as single floats, row by row, and beside them how they lie; NaN where there are none. */
function writeField(to: string, name: string, f: HeightField): void {
  const { cols, rows, cell, x0, y0, z } = f;
  writeFileSync(path.join(to, `${name}.f32`), new Uint8Array(z.buffer, z.byteOffset, z.byteLength));
  writeFileSync(path.join(to, `${name}.json`), JSON.stringify({ cols, rows, cell, x0, y0, sample: 'node' }));
}

/** Writes what a set-up leaves of its upper face into a folder. */
function proveOnly(job: OneSetup, art: Art, to: string, found: Found | null, cell: number, relief: GiveRelief): Proof {
  const enabled = job.cuts.filter((c) => c.enabled);
  const plans = new Map(enabled.map((c) => [c.id, planCut(job, c, art, () => {}, relief)]));
  const programs = writePrograms(job, plans);
  const proof = prove(job, placePrograms(job, programs), programs.tools, plans, cell, () => {}, undefined, found);
  writeField(to, 'proof', { ...proof.field, cell });
  return proof;
}

try {
  process.exitCode = main(process.argv.slice(2));
} catch (e) {
  const text = e instanceof Error ? e.message : String(e);
  console.error(
    `mirvak: ${text.replace(/\s*\n\s*/g, ' ')}${e instanceof UsageError ? ' (mirvak --help lists the calls)' : ''}`,
  );
  process.exitCode = 1;
}
