import { killedAtWork, LOST_AT_MOST, type Killed } from '../e2e/killed';
import { startServer } from '../e2e/server.mjs';
import { seeded } from '../src/core/testing/seeded';

/** Kills the browser at random moments of work, in one and two windows and at a full disk, and tells what was lost: `npm run crash -- 200 [SEED] [KIND]`. */
const [runs = 20, seed = 1] = process.argv.slice(2, 4).map(Number);
const only = process.argv[4];
const random = seeded(seed);

const { url, server } = await startServer();
const kinds = (['one', 'two', 'one', 'full'] as const).filter((k) => !only || k === only);
const found: (Killed & { readonly kind: string })[] = [];
for (let i = 0; i < runs; i++) {
  const kind = kinds[i % kinds.length];
  const r = await killedAtWork(url, kind, random);
  found.push({ kind, ...r });
  if ((i + 1) % 20 === 0) console.log(`${i + 1} killed so far`);
  if (!(r.lost <= LOST_AT_MOST))
    console.log(`run ${i + 1}, ${kind}: ${r.lost === Infinity ? r.why : `${Math.round(r.lost)} ms lost`}`);
}
server.kill('SIGTERM');
console.log(
  `The disk was full for two seconds in ${found.filter((f) => typeof f.said === 'boolean').length} runs; "Not saved" was said in ${found.filter((f) => f.said).length} of them.`,
);
console.log(`The browser had lost its database in ${found.filter((f) => f.putBack).length} runs.`);
console.log('| windows | killed | worst loss | lost more than 2 s |\n| --- | --- | --- | --- |');
for (const kind of ['one', 'two', 'full']) {
  const of = found.filter((f) => f.kind === kind);
  if (of.length)
    console.log(
      `| ${kind} | ${of.length} | ${Math.round(Math.max(...of.map((f) => f.lost)))} ms | ${of.filter((f) => !(f.lost <= LOST_AT_MOST)).length} |`,
    );
}
process.exit(found.every((f) => f.lost <= LOST_AT_MOST) ? 0 : 1);
