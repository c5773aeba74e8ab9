// Lists the direct dependencies with their licences, for docs/third-party.md.
import { readFileSync } from 'node:fs';
const own = JSON.parse(readFileSync('package.json', 'utf8'));
for (const [kind, list] of [
  ['Shipped', own.dependencies],
  ['For development', own.devDependencies],
]) {
  console.log(`\n## ${kind}\n\n| package | version | licence |\n| --- | --- | --- |`);
  for (const name of Object.keys(list).sort()) {
    const p = JSON.parse(readFileSync(`node_modules/${name}/package.json`, 'utf8'));
    console.log(
      `| ${name} | ${p.version} | ${typeof p.license === 'string' ? p.license : (p.license?.type ?? p.licenses?.map((l) => l.type).join(', '))} |`,
    );
  }
}
