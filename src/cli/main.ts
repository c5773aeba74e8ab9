import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { z } from 'zod';
import { packJob, unpackJob, type Assets } from '../core/job/archive';
import { demoJobs } from '../core/job/demo';
import { oneSetupSchema, type OneSetup } from '../core/job/job';
import { placePrograms, prove } from '../core/pipeline/proving';
import { runJob } from '../core/pipeline/run';
import { reportOf, setupOf } from '../core/pipeline/report';
import { writePrograms } from '../core/pipeline/programs';
import { planCut } from '../core/pipeline/planning';
import { fontsFromPackages } from './fonts';

const USAGE = `mirvak plan JOB --out DIR [--files one|cutter|cut] [--dialect ID]
mirvak proof JOB --cell MM --out DIR
mirvak schema
mirvak demo NAME --out FILE        (${Object.keys(demoJobs).join(', ')})`;

class UsageError extends Error {}

function open(file: string | undefined): { job: OneSetup; assets: Assets } {
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
const cellFor = (job: OneSetup) => Math.max(0.05, Math.sqrt((job.blank.width * job.blank.height) / 3e6));

function main(args: string[]): number {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { out: { type: 'string' }, files: { type: 'string' }, dialect: { type: 'string' }, cell: { type: 'string' }, help: { type: 'boolean', short: 'h' } },
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
    console.log(JSON.stringify(z.toJSONSchema(oneSetupSchema), null, 2));
    return 0;
  }
  if (command === 'demo') {
    const make = demoJobs[target ?? ''];
    if (!make) throw new UsageError(`there is no demo job "${target ?? ''}"; there are ${Object.keys(demoJobs).join(', ')}`);
    const file = out();
    mkdirSync(path.dirname(path.resolve(file)), { recursive: true });
    writeFileSync(file, file.endsWith('.json') ? JSON.stringify(make(), null, 2) : packJob(make()));
    return 0;
  }
  if (command !== 'plan' && command !== 'proof') throw new UsageError(`there is no command "${command}"`);
  const { job, assets } = open(target);
  const art = fontsFromPackages();
  for (const f of job.fonts) if (assets[f.file]) art.put(f.id, assets[f.file]);
  if (command === 'plan') {
    const files = values.files as OneSetup['run']['files'] | undefined;
    if (files && !['one', 'cutter', 'cut'].includes(files)) throw new UsageError('--files is one, cutter or cut');
    const dir = out();
    const { plans, programs, proof } = runJob(job, art, cellFor(job), { files, dialect: values.dialect });
    mkdirSync(dir, { recursive: true });
    for (const f of programs.files) writeFileSync(path.join(dir, f.name), f.text);
    writeFileSync(path.join(dir, 'report.json'), JSON.stringify(reportOf(job, programs, proof), null, 1));
    writeFileSync(path.join(dir, 'setup.json'), JSON.stringify(setupOf(job, programs, plans), null, 1));
    for (const f of proof.findings) console.log(`${f.check}: ${f.text}`);
    return proof.findings.length ? 2 : 0;
  }
  const cell = Number(values.cell);
  if (!(cell > 0)) throw new UsageError('--cell takes a size in mm, such as 0.1');
  if ((job.blank.width / cell) * (job.blank.height / cell) > 4e8) throw new Error('That is more than 400 million cells. Take a larger --cell.');
  const dir = out();
  const plans = new Map(job.cuts.filter((c) => c.enabled).map((c) => [c.id, planCut(job, c, art)]));
  const programs = writePrograms(job, plans);
  const proof = prove(job, placePrograms(job, programs), programs.tools, plans, cell);
  const { cols, rows, x0, y0, z: heights } = proof.field;
  mkdirSync(dir, { recursive: true });
  writeFileSync(path.join(dir, 'proof.f32'), new Uint8Array(heights.buffer, heights.byteOffset, heights.byteLength));
  writeFileSync(path.join(dir, 'proof.json'), JSON.stringify({ cols, rows, cell, x0, y0, sample: 'node' }));
  return proof.findings.length ? 2 : 0;
}

try {
  process.exitCode = main(process.argv.slice(2));
} catch (e) {
  const text = e instanceof Error ? e.message : String(e);
  console.error(`mirvak: ${text.replace(/\s*\n\s*/g, ' ')}${e instanceof UsageError ? ' (mirvak --help lists the calls)' : ''}`);
  process.exitCode = 1;
}
