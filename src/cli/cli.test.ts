import { freshForm } from '@/core/relief/freshForm';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { buildSync } from 'esbuild';
import { packJob } from '../core/job/archive';
import { readJob } from '../core/job/migrate';
import { shippedFile } from '../core/testing/fonts';
import { cutOut, readMoves, testCone, testFlat } from '../core/testing/independent';

const dir = mkdtempSync(path.join(os.tmpdir(), 'mirvak-cli-'));
/** The program in one file, two folders deep as its source is: compiling it anew took a second at each of the calls. */
const program = 'node_modules/.cache/mirvak-cli.mjs';
const mirvak = (...args: string[]) => spawnSync(process.execPath, [program, ...args], { encoding: 'utf8' });
const json = (file: string) => JSON.parse(readFileSync(path.join(dir, file), 'utf8'));

describe('the command line', () => {
  const job = path.join(dir, 'board.json');
  beforeAll(() => {
    buildSync({
      entryPoints: ['src/cli/main.ts'],
      outfile: program,
      bundle: true,
      platform: 'node',
      format: 'esm',
      banner: {
        js: "import { createRequire as makeRequire } from 'node:module'; const require = makeRequire(import.meta.url);",
      },
    });
    expect(mirvak('demo', 'lock-cottage-board', '--out', job).status).toBe(0);
    // Few letters, and the leaf of the ornament, are as good as all.
    const board = JSON.parse(readFileSync(job, 'utf8'));
    const [only] = board.setups;
    for (const i of only.items) if (i.kind === 'lettering') i.values.text = 'L7';
    for (const c of only.cuts) if (c.id === 'c-ornament') c.items = ['i-leaf'];
    writeFileSync(job, JSON.stringify(board));
  });

  it('writes the relief of a job as heights and as a body, and says what a form lacks', () => {
    expect(mirvak('relief', job, '--out', path.join(dir, 'none'))).toMatchObject({
      status: 1,
      stderr: 'mirvak: This job has no relief.\n',
    });
    const board = JSON.parse(readFileSync(job, 'utf8'));
    board.setups[0].relief = {
      baseDepth: 5,
      cell: null,
      forms: [freshForm('g', 'Water', 'ground', { height: 2 }), freshForm('o', 'Reeds', 'outline')],
    };
    const with2 = path.join(dir, 'relief.json');
    writeFileSync(with2, JSON.stringify(board));
    const r = mirvak('relief', with2, '--cell', '1', '--out', path.join(dir, 'relief'));
    expect([r.status, r.stdout]).toEqual([
      2,
      'Reeds: No closed outline is picked for it. Pick lettering or outlines.\n',
    ]);
    const { cols, rows, cell } = json('relief/relief.json');
    expect([cols, rows, cell]).toEqual([361, 201, 1]);
    const bytes = readFileSync(path.join(dir, 'relief/relief.f32'));
    expect(bytes.length).toBe(4 * cols * rows);
    expect(bytes.readFloatLE(4 * 500)).toBe(-3);
    const stl = readFileSync(path.join(dir, 'relief/relief.stl'));
    expect(stl.length).toBe(84 + 50 * stl.readUInt32LE(80));
  });

  it('plans the demo board, file by cutter, and everything passes', () => {
    const r = mirvak('plan', job, '--out', path.join(dir, 'plan'), '--files', 'cutter');
    expect([r.status, r.stdout, r.stderr]).toEqual([0, '', '']);
    const setup = json('plan/setup.json');
    expect(setup.files).toEqual(
      readdirSync(path.join(dir, 'plan'))
        .filter((f) => f.endsWith('.nc'))
        .sort(),
    );
    expect(setup.zZero).toBe('top');
    expect(setup.tools['3']).toMatchObject({ shape: 'v', includedAngle: 60, tipDiameter: 0 });
    const report = json('plan/report.json');
    expect(report.cuts.map((c: { name: string }) => c.name)).toEqual([
      'Lettering',
      'Ornament',
      'Border channel',
      'Cut free',
    ]);
    expect(report.checks.every((c: { passed: boolean }) => c.passed)).toBe(true);
    const parts = report.cuts.reduce((s: number, c: { minutes: number }) => s + c.minutes, 0);
    expect(report.minutes).toBeCloseTo(parts + (report.toolChanges * 63) / 60, 2);
  });

  it('(long) proves what another machine cuts from the same text', () => {
    expect(mirvak('proof', job, '--cell', '1', '--out', path.join(dir, 'proof')).status).toBe(0);
    const { cols, rows, cell, sample } = json('proof/proof.json');
    expect([cols, rows, cell, sample]).toEqual([361, 201, 1, 'node']);
    const bytes = readFileSync(path.join(dir, 'proof/proof.f32'));
    const z = new Float32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4);
    const points: { x: number; y: number; i: number }[] = [];
    for (let i = 0; i < z.length; i += 13) points.push({ x: i % cols, y: Math.floor(i / cols), i });
    points.sort((a, b) => a.x - b.x);
    const cloud = {
      x: Float64Array.from(points, (p) => p.x),
      y: Float64Array.from(points, (p) => p.y),
      z: new Float64Array(points.length),
    };
    // As they were planned above.
    const programs = json('plan/setup.json').files.map((f: string) => readFileSync(path.join(dir, 'plan', f), 'utf8'));
    cutOut(
      cloud,
      programs.flatMap((text: string) => readMoves(text)),
      { 1: testFlat(3), 2: testFlat(1.5), 3: testCone(60, 0, 12), 4: testFlat(6) },
    );
    let cut = 0;
    let differ = 0;
    points.forEach((p, k) => {
      if (cloud.z[k] < 0) cut++;
      if (Math.abs(cloud.z[k] - z[p.i]) > 0.002) differ++;
    });
    expect(cut).toBeGreaterThan(200);
    // Nodes that lie on the very rim of a flat cutter may fall to either side.
    expect(differ).toBeLessThanOrEqual(points.length * 2e-3);
  });

  it('sets lettering in a font that lies in the job file', () => {
    const own = readJob(JSON.parse(readFileSync(job, 'utf8')));
    own.assets = [{ id: 'own-lock', type: 'font', name: 'The keeper\u2019s', file: 'fonts/own-lock.woff' }];
    own.setups[0].items.find((i) => i.id === 'i-lock')!.values.font = 'own-lock';
    own.setups[0].cuts = own.setups[0].cuts
      .filter((c) => c.id === 'c-letters')
      .map((c) => ({ ...c, items: ['i-lock'] }));
    const made = (name: string, assets: Record<string, Uint8Array>) => {
      writeFileSync(path.join(dir, `${name}.mirvak`), packJob(own, assets));
      expect(mirvak('plan', path.join(dir, `${name}.mirvak`), '--out', path.join(dir, name)).stderr).toBe('');
      return json(`${name}/report.json`).cuts[0].cutLength as number;
    };
    expect(made('with', { 'fonts/own-lock.woff': shippedFile('archivo') })).toBeGreaterThan(500);
    expect(made('without', {})).toBe(0);
  });

  it('ends with 2 and a line for each finding', () => {
    const plate = path.join(dir, 'plate.json');
    expect(mirvak('demo', 'sluice-gear-plate', '--out', plate).status).toBe(0);
    const bad = JSON.parse(readFileSync(plate, 'utf8'));
    const [only] = bad.setups;
    only.cuts.reverse();
    only.cuts[0].values.beyond = only.intoBed + 2.2;
    writeFileSync(path.join(dir, 'bad.json'), JSON.stringify(bad));
    const r = mirvak('plan', path.join(dir, 'bad.json'), '--out', path.join(dir, 'bad'));
    expect(r.status).toBe(2);
    expect(r.stdout).toMatch(/^bed: "Cut free" goes 2\.2 mm deeper into the spoilboard/m);
    expect(r.stdout).toMatch(
      /^order: "Cut free" cuts the part free before "Screw holes", "Serial number", "Arrow", "Dial and lettering"/m,
    );
  });

  it.each([
    [['plan', path.join(os.tmpdir(), 'no-such-job.json'), '--out', dir], /cannot be read/],
    [['demo', 'nothing', '--out', path.join(dir, 'x')], /no demo job "nothing"/],
    [['proof', job, '--out', dir], /--cell takes a size/],
    [['plan', job, '--out', dir, '--dialect', 'martian'], /no dialect called "martian"/],
    [['dance'], /no command "dance"/],
  ])('ends with 1 and one line on errors: %#', (args, why) => {
    const r = mirvak(...args);
    expect(r.status).toBe(1);
    expect(r.stderr.trim().split('\n').length).toBe(1);
    expect(r.stderr).toMatch(why);
  });

  it('prints a schema that names the format, run from its sources as a maker runs it', () => {
    const r = spawnSync(process.execPath, ['--import', 'tsx', 'src/cli/main.ts', 'schema'], { encoding: 'utf8' });
    expect(JSON.parse(r.stdout).properties.format.const).toBe('mirvak-job');
  });
});
