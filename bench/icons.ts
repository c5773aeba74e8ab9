/**
 * Reads every icon of a large open icon package and holds its filled area against a reference rasteriser: `npm run icons`.
 */
import { flatten } from '../src/core/geometry/path';
import { normalise, regionArea } from '../src/core/geometry/region';
import { readSvg } from '../src/core/exchange/svg/read';
import { iconNames, iconText, rasteriser } from './iconPackage';

const Resvg = rasteriser();
const PX_PER_UNIT = 25;
const PX = 25.4 / 96;
const files = iconNames();
let good = 0;
const bad: string[] = [];
let reading = 0;
for (const f of files) {
  const source = iconText(f);
  try {
    const t = performance.now();
    const drawn = readSvg(source, f);
    reading += performance.now() - t;
    const area = drawn.things.reduce(
      (sum, thing) =>
        sum +
        regionArea(
          normalise(
            thing.paths.map((p) => flatten(p, 0.0005)),
            thing.fill,
          ),
        ),
      0,
    );
    const { pixels } = new Resvg(source, {
      fitTo: { mode: 'zoom', value: PX_PER_UNIT },
      font: { loadSystemFonts: false },
    }).render();
    let alpha = 0;
    for (let i = 3; i < pixels.length; i += 4) alpha += pixels[i];
    const want = (alpha / 255 / PX_PER_UNIT ** 2) * PX * PX;
    if (Math.abs(area - want) <= 0.005 * want) good++;
    else bad.push(`${f} ${((area / want - 1) * 100).toFixed(2)} %`);
  } catch (e) {
    bad.push(`${f}: ${(e as Error).message}`);
  }
}
console.log(
  `${files.length} files, ${good} within 0.5 % (${((100 * good) / files.length).toFixed(2)} %), ${reading.toFixed(0)} ms for reading`,
);
for (const b of bad.slice(0, 20)) console.log(`  ${b}`);
