/**
 * A cut of a million moves in the built application: `npm run bench:interface -- million` (`-- tenmillion`: of ten).
 * A wavy ring goes down in a hundred
 * levels; how smoothly its plan moves, how long the proof takes when a small cut beside it is edited, and the blocks of the page.
 */
import type { Page } from 'puppeteer-core';
import type { Maker } from '../e2e/maker';
import { processesOf, saidOf } from '../e2e/processes';
import { newItem } from '../src/core/artwork/item';
import { kindOf } from '../src/core/cuts/registry';
import { shippedLibrary } from '../src/core/cutters/library';
import type { Path } from '../src/core/geometry/path';
import { newOneSetup, type OneSetup } from '../src/core/job/job';
import { seeded } from '../src/core/testing/seeded';
import { forgetTasks, longTasks, sinceKey, watchProofs } from './page';
import { explain, tasksOf, told } from './tasks';

/** A ring of so many nodes that no arc fits, cut in so many levels, and a pocket beside it. */
export function millionJob(nodes: number, levels: number, stepDown = 0.1): OneSetup {
  const job = newOneSetup('Million');
  job.blank = { ...job.blank, width: 300, height: 200, thickness: 20 };
  const random = seeded(1);
  const at = (i: number) => {
    const r = 70 + 12 * Math.sin((40 * Math.PI * i) / nodes) + 0.06 * random();
    return { x: 1.5 * r * Math.cos((2 * Math.PI * i) / nodes), y: r * Math.sin((2 * Math.PI * i) / nodes) };
  };
  const start = at(0);
  const ring: Path = {
    ...start,
    segments: Array.from({ length: nodes }, (_, i) => ({ k: 'line' as const, ...(i + 1 < nodes ? at(i + 1) : start) })),
    closed: true,
  };
  job.items = [
    newItem({ id: 'ring', name: 'Ring', kind: 'drawing', x: 150, y: 100, values: { paths: [ring], fill: 'nonzero' } }),
    newItem({
      id: 'pocket',
      name: 'Pocket',
      kind: 'rectangle',
      x: 150,
      y: 100,
      values: { width: 20, height: 12, corner: 'square', radius: 0 },
    }),
  ];
  job.cutters = shippedLibrary().filter((c) => ['flat-2', 'flat-3'].includes(c.id));
  const cut = (id: string, kind: string, items: string[], values: object, overrides: object) => ({
    id,
    name: id,
    kind,
    enabled: true,
    items,
    values: {
      ...(kindOf(kind).defaults({ ...job.blank, clamps: [] }, job.cutters) as Record<string, unknown>),
      ...values,
    },
    overrides: overrides as OneSetup['cuts'][number]['overrides'],
  });
  job.cuts = [
    cut(
      'Ring',
      'profile',
      ['ring'],
      { cutter: 'flat-2', side: 'on', through: false, depth: levels * stepDown },
      { 'flat-2': { stepDown } },
    ),
    cut('Pocket', 'area', ['pocket'], { cutters: ['flat-3'], depth: 2 }, {}),
  ];
  return job;
}

/** Frames that the page draws while the plan is dragged about: milliseconds from each to the next. */
async function framesWhileMoving(page: Page): Promise<number[]> {
  const table = (await (await page.$('canvas'))!.boundingBox())!;
  const [x, y] = [table.x + table.width / 2, table.y + table.height / 2];
  await page.evaluate(() => {
    const w = window as unknown as { __frames: number[]; __stop: boolean };
    w.__frames = [];
    w.__stop = false;
    const next = (t: number) => {
      w.__frames.push(t);
      if (!w.__stop) requestAnimationFrame(next);
    };
    requestAnimationFrame(next);
  });
  await page.mouse.move(x, y);
  await page.mouse.down({ button: 'middle' });
  for (let i = 0; i < 120; i++) await page.mouse.move(x + 60 * Math.sin(i / 12), y + 40 * Math.sin(i / 17));
  await page.mouse.up({ button: 'middle' });
  const at = await page.evaluate(() => {
    const w = window as unknown as { __frames: number[]; __stop: boolean };
    w.__stop = true;
    return w.__frames;
  });
  return at.slice(1).map((t, i) => t - at[i]);
}

/** Memory of a browser and all its processes, MB: what several share is shared out among them. */
function memoryOf(browser: number): number {
  let kB = 0;
  for (const p of [String(browser), ...processesOf(browser)])
    kB += Number(/^Pss:\s+(\d+)/m.exec(saidOf(p, 'smaps_rollup'))?.[1] ?? 0);
  return kB / 1024;
}

/**
 * Seconds from a press until the program lies in its file, and its bytes. The browser's own question for a file is answered with
 * one of the page's origin; what is written into it is there when it is closed.
 */
async function saved(page: Page, maker: Maker): Promise<{ readonly took: number; readonly bytes: number }> {
  await page.evaluate(() =>
    Object.assign(window, {
      showSaveFilePicker: async () =>
        (await navigator.storage.getDirectory()).getFileHandle('saved.nc', { create: true }),
      // What is small is given to the browser whole.
      __given: 0,
    }),
  );
  await page.evaluate(() => {
    const give = URL.createObjectURL.bind(URL);
    URL.createObjectURL = (of: Blob) => {
      (window as unknown as { __given: number }).__given = of.size;
      return give(of);
    };
  });
  const size = () =>
    page.evaluate(async () => {
      const file = await (await navigator.storage.getDirectory()).getFileHandle('saved.nc').catch(() => null);
      return file ? (await file.getFile()).size : (window as unknown as { __given: number }).__given;
    });
  await maker.stage('Run');
  const began = performance.now();
  await maker.press('Save the program');
  while (!(await size())) await new Promise((r) => setTimeout(r, 50));
  return { took: (performance.now() - began) / 1000, bytes: await size() };
}

/** Stops what is worked out, some seconds after it has begun, and lets it go on: how long until no thread of the browser is at work. */
export async function stopped(page: Page, maker: Maker): Promise<void> {
  await maker.stage('Proof');
  await maker.find('button', 'Stop working');
  await new Promise((r) => setTimeout(r, 8000));
  const browser = page.browser().process()!.pid!;
  /** Clock ticks that all its processes have had. */
  const ticks = () =>
    processesOf(browser).reduce((sum, p) => {
      const [user, kernel] = saidOf(p, 'stat')
        .replace(/^.*\) /, '')
        .split(' ')
        .slice(11, 13);
      return sum + Number(user ?? 0) + Number(kernel ?? 0);
    }, 0);
  const began = performance.now();
  await maker.press('Stop working');
  // A tick is a hundredth of a second: less than a fifth of one core is nobody at work.
  for (let before = ticks(); ;) {
    await new Promise((r) => setTimeout(r, 100));
    const now = ticks();
    if (now - before < 2) break;
    before = now;
  }
  console.log(`| stopped at work, until nothing is worked on | ${(performance.now() - began).toFixed(0)} ms | |`);
  await maker.press('Go on working');
}

/**
 * The same with ten million moves: how long until its proof is seen and its program is saved, the longest block of the page, and
 * the most memory meanwhile.
 */
export async function tenMillion(page: Page, maker: Maker, what: string): Promise<void> {
  const browser = page.browser().process()!.pid!;
  let most = 0;
  const watching = setInterval(() => (most = Math.max(most, memoryOf(browser))), 500);
  const began = performance.now();
  let took = 0;
  let file = { took: 0, bytes: 0 };
  const tasks = await tasksOf(
    page,
    async () => {
      await maker.proven(900_000);
      took = (performance.now() - began) / 1000;
      file = await saved(page, maker);
    },
    process.argv.includes('trace'),
  ).finally(() => clearInterval(watching));
  const blocks = tasks.filter((t) => t.took > 50).slice(0, 6);
  const own = Math.max(...tasks.map((t) => t.own));
  console.log(
    `| ${what} opened, until its proof is seen | ${took.toFixed(1)} s | its program of ${(file.bytes / 1e6).toFixed(0)} MB saved in ${file.took.toFixed(1)} s more; longest blocks (of the processor): ${told(blocks) || 'none over 50'} ms; most of the processor in one ${own.toFixed(0)} ms; memory of the browser at most ${most.toFixed(0)} MB |`,
  );
  explain(tasks);
}

export async function million(page: Page, maker: Maker): Promise<void> {
  const began = performance.now();
  await maker.proven(600_000);
  console.log(
    `| a cut of a million moves opened, until its proof is seen | ${((performance.now() - began) / 1000).toFixed(1)} s | longest blocks: ${(
      await longTasks(page)
    )
      .sort((a, b) => b - a)
      .slice(0, 5)
      .map((t) => t.toFixed(0))
      .join(', ')} ms |`,
  );
  await maker.stage('Cuts');
  await maker.press('Plan');
  await new Promise((r) => setTimeout(r, 6000));
  await forgetTasks(page);
  const frames = (await framesWhileMoving(page)).sort((a, b) => a - b);
  console.log(
    `| its plan dragged about | ${(1000 / frames[frames.length >> 1]).toFixed(0)} frames a second | half within ${frames[frames.length >> 1].toFixed(1)} ms, 95 % within ${frames[Math.floor(frames.length * 0.95)].toFixed(1)} ms; blocks over 50 ms: ${(await longTasks(page)).map((t) => t.toFixed(0)).join(', ') || 'none'} |`,
  );
  if ((await maker.text()).includes('nothing to paste')) throw new Error('pasted');
  await maker.press(/^Cut 2: Pocket/);
  const times: number[] = [];
  await forgetTasks(page);
  await watchProofs(page);
  for (const depth of ['2.1', '2.2', '2.3', '2.4', '2.5']) {
    await maker.fill('Depth', depth, false);
    // What the last change began beside the proof comes to its end.
    await new Promise((r) => setTimeout(r, 1500));
    await page.keyboard.press('Enter');
    times.push(await sinceKey(page));
  }
  console.log(
    `| a pocket beside it made deeper, until its proof is seen | ${times.sort((a, b) => a - b)[2].toFixed(0)} ms | ${times.map((t) => t.toFixed(0)).join(', ')} ms; blocks over 50 ms: ${(await longTasks(page)).map((t) => t.toFixed(0)).join(', ') || 'none'} |`,
  );
}
