/**
 * Looks for outlines whose medial axis cannot be found: `npm run axis -- 5000 [SEED]`. Pictures made here (soft edges, noise,
 * waves, letters' stems) are traced with many accuracies and sizes, offset artwork included; then the icons of a large open
 * package follow at three scales. Every connected piece is asked for its axis; what is refused is printed with its seed.
 */
import { placement, flatten, transformPath } from '../src/core/geometry/path';
import { axisOf } from '../src/core/geometry/medial/axis';
import { traceable } from '../src/core/geometry/traceable';
import { boundsOf, components, normalise, offset, type Region } from '../src/core/geometry/region';
import { readSvg } from '../src/core/exchange/svg/read';
import { traceDefaults } from '../src/core/artwork/trace/options';
import { trace } from '../src/core/artwork/trace/trace';
import { softPicture } from '../src/core/testing/pictures';
import { seeded } from '../src/core/testing/seeded';
import { iconNames, iconText } from './iconPackage';

let pieces = 0;
let segments = 0;
let refused = 0;
let slowest = { ms: 0, name: '' };

function ask(region: Region, name: string): void {
  for (const part of components(region)) {
    pieces++;
    segments += part.reduce((n, l) => n + l.length / 2, 0);
    const begun = performance.now();
    const { lost } = traceable(part, axisOf);
    refused += lost.length;
    for (const l of lost) console.log(`${name}: ${l.area.toPrecision(3)} mm2 at ${l.x}, ${l.y}`);
    const ms = performance.now() - begun;
    if (ms > slowest.ms) slowest = { ms, name };
  }
}

const wanted = Number(process.argv[2] ?? 5000);
const first = Number(process.argv[3] ?? 1);
for (let seed = first, made = 0; made < wanted; seed++) {
  const r = seeded(seed);
  const picture = softPicture(r);
  const accuracy = [0.05, 0.1, 0.2, 0.5, 1, 2][Math.floor(r() * 6)];
  const threshold = 0.2 + 0.6 * r();
  const size = [5, 20, 25.4, 60, 100, 300, 600][Math.floor(r() * 7)];
  const k = size / picture.width;
  const tolerance = [0.00005, 0.0003, 0.0008, 0.002, 0.01][Math.floor(r() * 5)];
  for (const layer of trace(picture, {
    ...traceDefaults,
    accuracy,
    threshold,
    speckle: r() < 0.5 ? 0 : 6,
    corner: 10 + 50 * r(),
  })) {
    made += layer.paths.length;
    const loops = layer.paths.map((p) =>
      flatten(transformPath(p, { a: k, b: 0, c: 0, d: k, e: 30 * r(), f: 20 }), tolerance),
    );
    const region = normalise(loops, r() < 0.5 ? 'evenodd' : 'nonzero');
    const name = `picture ${seed} (accuracy ${accuracy}, ${size} mm, tolerance ${tolerance})`;
    ask(region, name);
    ask(offset(region, (r() < 0.5 ? -1 : 1) * size * 0.01 * r(), tolerance), `${name}, offset`);
  }
}
console.log(
  `traced: ${pieces} pieces, ${segments} segments, ${refused} refused; slowest ${slowest.ms.toFixed(0)} ms (${slowest.name})`,
);
pieces = segments = 0;
slowest = { ms: 0, name: '' };
const before = refused;
for (const file of process.argv[4] === 'no-icons' ? [] : iconNames()) {
  const paths = readSvg(iconText(file), file).things.flatMap((t) => t.paths);
  const b = boundsOf(paths.map((p) => flatten(p, 0.05)));
  if (!b) continue;
  for (const size of [8, 40, 250]) {
    const k = size / Math.max(b.x1 - b.x0, b.y1 - b.y0);
    const placed = paths.map((p) =>
      transformPath(transformPath(p, placement(-b.x0, -b.y0, 0)), { a: k, b: 0, c: 0, d: k, e: 5, f: 5 }),
    );
    ask(
      normalise(
        placed.map((p) => flatten(p, 0.0008)),
        'nonzero',
      ),
      `${file} at ${size} mm`,
    );
  }
}
console.log(
  `icons: ${pieces} pieces, ${segments} segments, ${refused - before} refused; slowest ${slowest.ms.toFixed(0)} ms (${slowest.name})`,
);
process.exitCode = refused ? 1 : 0;
