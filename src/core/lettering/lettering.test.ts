import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { real } from '../testing/real';
import { boundsOfPaths, circlePath, flatten, type Path } from '../geometry/path';
import { makeArcLengthPath } from '../geometry/arcLengthPath';
import { warpPath } from '../geometry/warp';
import { letterOf, shippedFile, shippedFont, testArt, testShaper } from '../testing/fonts';
import { carrySpaces, layOut, type Lettering } from './layout';
import { endingOf, fontName, loadFont, sfntIn } from './font';
import { openedFont } from './openedFont';
import { FontShelf } from './shelf';
import { strokeFont } from './strokes/strokeFont';

const base: Lettering = {
  text: 'LOCK',
  capHeight: 10,
  tracking: 0,
  kerning: true,
  leading: 1.6,
  align: 'centre',
  stretch: 100,
};
const along = { side: 'left', spacing: 'natural', stand: 'turned', shift: 0, off: 0 } as const;
const font = shippedFont('archivo');
const line = (x0: number, y0: number, x1: number, y1: number): Path => ({
  x: x0,
  y: y0,
  segments: [{ k: 'line', x: x1, y: y1 }],
  closed: false,
});
const joined = { kerning: true, ligatures: true };
/** Middle and size of what is drawn. */
const box = (paths: readonly Path[]) => {
  const b = boundsOfPaths(paths)!;
  return { ...b, w: b.x1 - b.x0, h: b.y1 - b.y0 };
};

describe('a guide', () => {
  test('measures arcs and lines exactly, cubics to a millionth', () => {
    expect(makeArcLengthPath(circlePath(3, 4, 7)).length).toBeCloseTo(14 * Math.PI, 9);
    const k = (4 / 3) * Math.tan(Math.PI / 8);
    const quarter: Path = {
      x: 10,
      y: 0,
      segments: [{ k: 'cubic', x1: 10, y1: 10 * k, x2: 10 * k, y2: 10, x: 0, y: 10 }],
      closed: false,
    };
    // The cubic quarter turn is within 0.03 % of the circle.
    expect(Math.abs(makeArcLengthPath(quarter).length / (5 * Math.PI) - 1)).toBeLessThan(3e-4);
  });
  test('walks at an even pace, with unit tangents, and goes on straight beyond its ends', () => {
    const path: Path = {
      x: 0,
      y: 0,
      segments: [
        { k: 'line', x: 10, y: 0 },
        { k: 'cubic', x1: 20, y1: 0, x2: 10, y2: 20, x: 30, y: 20 },
        { k: 'arc', x: 40, y: 30, cx: 30, cy: 30, ccw: true },
      ],
      closed: false,
    };
    const g = makeArcLengthPath(path);
    fc.assert(
      fc.property(real(0, 1), (f) => {
        const s = f * (g.length - 0.02);
        const a = g.at(s);
        const b = g.at(s + 0.02);
        expect(Math.hypot(a.tx, a.ty)).toBeCloseTo(1, 9);
        expect(Math.abs(Math.hypot(b.x - a.x, b.y - a.y) - 0.02)).toBeLessThan(2e-4);
      }),
    );
    const end = g.at(g.length);
    const beyond = g.at(g.length + 5);
    expect(beyond.x - end.x).toBeCloseTo(5 * end.tx, 6);
    expect(beyond.y - end.y).toBeCloseTo(5 * end.ty, 6);
  });
});

describe('lettering along a curve', () => {
  test('along a straight line is the straight setting, whichever way letters stand', () => {
    const straight = box(layOut({ ...base, align: 'left' }, font).paths);
    for (const stand of ['turned', 'upright', 'bent'] as const) {
      const b = box(
        layOut({ ...base, align: 'left', along: { ...along, stand, curve: line(0, 0, 200, 0) } }, font).paths,
      );
      expect(b.w).toBeCloseTo(straight.w, 3);
      expect(b.h).toBeCloseTo(straight.h, 3);
    }
  });
  test('on a circle feet stand on it and letters go outwards, turned or bent', () => {
    for (const stand of ['turned', 'bent'] as const) {
      const { paths } = layOut(
        {
          ...base,
          text: 'HHHH',
          along: { ...along, stand, curve: { radius: 40, at: 90, sweep: 180, stand: 'outwards' } },
        },
        font,
      );
      const reach = paths.flatMap((p) => {
        const q = flatten(p, 0.001);
        return Array.from({ length: q.length / 2 }, (_, i) => Math.hypot(q[2 * i], q[2 * i + 1]));
      });
      // A bent H has its feet on the circle and its head at cap height; a turned one bulges beyond by its half width.
      const slack = stand === 'bent' ? 0.002 : 0.4;
      expect(Math.min(...reach)).toBeGreaterThan(40 - 0.002);
      expect(Math.min(...reach)).toBeLessThan(40 + slack);
      expect(Math.max(...reach)).toBeGreaterThan(50 - 0.002);
      expect(Math.max(...reach)).toBeLessThan(50 + 2 * slack);
    }
  });
  test('fitted letters reach from end to end, upright ones do not turn', () => {
    const curve = line(0, 0, 60, 80);
    const { paths } = layOut(
      { ...base, text: 'IIIII', along: { ...along, spacing: 'fitted', stand: 'upright', curve } },
      font,
    );
    const one = box([paths[0]]);
    const all = box(paths);
    expect(one.h).toBeCloseTo(10, 1);
    // First and last letter stand at the ends of the line, but for their own widths along it.
    expect(all.y1 - all.y0 - one.h).toBeGreaterThan(70);
    expect(all.x1).toBeLessThan(60 + one.w);
  });
  test('the other side of a line reads the other way', () => {
    const right = box(
      layOut({ ...base, align: 'left', along: { ...along, side: 'right', curve: line(0, 0, 100, 0) } }, font).paths,
    );
    expect(right.y1).toBeLessThan(0.3);
    expect(right.y0).toBeCloseTo(-10, 0);
    expect(right.x1).toBeGreaterThan(90);
  });
  test('standing off moves letters away from the curve by as much', () => {
    const at = (off: number) =>
      box(layOut({ ...base, align: 'left', along: { ...along, off, curve: line(0, 0, 100, 0) } }, font).paths);
    expect(at(3).y0 - at(0).y0).toBeCloseTo(3, 9);
  });
});

describe('boxes and warps', () => {
  test('a filled box is filled, one to stay inside is touched on one way', () => {
    const fill = layOut({ ...base, fit: { how: 'fill', width: 120, height: 7 } }, font);
    expect([fill.width, fill.height]).toEqual([120, 7]);
    const inside = layOut({ ...base, fit: { how: 'inside', width: 120, height: 7 } }, font);
    expect(inside.height).toBeCloseTo(7, 9);
    expect(inside.width).toBeLessThan(120);
  });
  test('an arch keeps upright stems as high as they are and lifts the middle by its rise', () => {
    const flat = box(layOut({ ...base, text: 'HHHHH' }, font).paths);
    const arch = layOut({ ...base, text: 'HHHHH', warp: { how: 'arch', by: 60 } }, font).paths;
    const middle = box([arch[2]]);
    const side = box([arch[0]]);
    expect(middle.y1 - side.y0).toBeGreaterThan(flat.h + 3);
    expect(middle.h).toBeLessThan(flat.h + 0.5);
    const crown = layOut({ ...base, text: 'HHHHH', warp: { how: 'crown', by: 60 } }, font).paths;
    expect(box([crown[2]]).h).toBeGreaterThan(box([crown[0]]).h + 2);
    expect(box(crown).y0).toBeCloseTo(-5, 1);
  });
  test('a warp strays less than 0.005 mm from the map itself', () => {
    const map = (x: number, y: number) => ({ x: (30 + y) * Math.sin(x / 30), y: (30 + y) * Math.cos(x / 30) });
    const warped = flatten(warpPath(line(-20, 5, 20, 5), map, 2), 0.0005);
    for (let i = 0; i < warped.length; i += 2)
      expect(Math.abs(Math.hypot(warped[i], warped[i + 1]) - 35)).toBeLessThan(0.005);
  });
});

describe('spaces by hand', () => {
  test('move what follows on the line, and nothing else', () => {
    const plain = layOut({ ...base, text: 'III\nIII', align: 'left' }, font).paths.map((p) => box([p]).x0);
    const set = layOut({ ...base, text: 'III\nIII', align: 'left', spaces: { 1: 500 } }, font);
    const moved = set.paths.map((p) => box([p]).x0);
    const step = 0.5 * font.unitsPerEm * (10 / font.capHeight);
    // The widest line sets the left edge: everything moves by half of what it grew.
    const shift = moved[0] - plain[0];
    expect(moved.map((x, i) => x - plain[i] - shift)).toEqual([0, 0, step, 0, 0, 0].map((v) => expect.closeTo(v, 4)));
  });
  test('stay with their letters when the text changes', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 12 }), fc.nat(), fc.nat(), fc.string({ maxLength: 4 }), (text, a, b, put) => {
        const chars = [...text];
        const from = Math.min(a, b) % (chars.length + 1);
        const to = Math.max(from, Math.max(a, b) % (chars.length + 1));
        const next = [...chars.slice(0, from), ...put, ...chars.slice(to)];
        const spaces = Object.fromEntries(chars.map((_, i) => [i, i + 1]));
        const carried = carrySpaces(spaces, text, next.join(''));
        for (const [k, v] of Object.entries(carried)) expect(next[Number(k)]).toBe(chars[v - 1]);
      }),
    );
  });
});

describe('the single-line alphabet', () => {
  const f = strokeFont();
  const latin =
    'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789.,:;!?\'"()[]{}/\\|-_+=<>*#$%&@^`~ÀÁÂÃÄÅÆÇÈÉÊËÌÍÎÏÐÑÒÓÔÕÖØÙÚÛÜÝÞßàáâãäåæçèéêëìíîïðñòóôõöøùúûüýþÿŒœŠšŽžŁłĄąĆćĘęŃńŚśŹźŻżČčĎďĚěŇňŘřŤťŮůŐőŰűĞğİıŞşȘșȚț–—‘’“”…·•£€°±×÷©«»¡¿';
  test('has Latin letters with their marks, figures and stops', () => {
    expect([...latin].filter((c) => !letterOf(f, c)?.paths.length)).toEqual([]);
    expect(letterOf(f, '漢')).toBeNull();
  });
  test('draws lines only, capitals 10 high on the baseline, inside their width', () => {
    for (const c of latin) for (const p of letterOf(f, c)!.paths) expect(p.closed).toBe(false);
    for (const c of 'ABDEFHIKLMNPRTUVWXYZ') {
      const b = box(letterOf(f, c)!.paths);
      expect([b.y0, b.y1]).toEqual([0, 10].map((v) => expect.closeTo(v, 6)));
      expect(b.x0).toBeGreaterThan(0);
      expect(b.x1).toBeLessThan(letterOf(f, c)!.width);
    }
  });
  test('leans when asked', () =>
    expect(box(letterOf(strokeFont(14), 'I')!.paths).w).toBeCloseTo(10 * Math.tan((14 * Math.PI) / 180), 6));
  test('is set like any other font', () => {
    const l = layOut({ ...base, text: 'Kéeper’s 7' }, testArt.font('line-upright')!);
    expect(l.missing).toEqual([]);
    expect(l.paths.every((p) => !p.closed)).toBe(true);
  });
});

describe('fonts of the maker’s own', () => {
  test('are read from their files, named by themselves, and kept apart by id', () => {
    const bytes = shippedFile('allura');
    expect(fontName(bytes, 'some-file.woff', testShaper)).toMatch(/Allura/);
    const shelf = new FontShelf(testArt.fileOf);
    expect(shelf.font('own-1')).toBeNull();
    shelf.put('own-1', bytes);
    expect(shelf.wrongWith('own-1')).toBeNull();
    expect(letterOf(shelf.font('own-1')!, 'a')!.paths).not.toHaveLength(0);
  });
  test('that are packed tightly are read where they are opened, and elsewhere it is said that they are not', () => {
    const tight = new Uint8Array(readFileSync('node_modules/@fontsource/allura/files/allura-latin-400-normal.woff2'));
    const [opens, sets] = [new FontShelf(testArt.fileOf, openedFont), new FontShelf(testArt.fileOf)];
    for (const shelf of [opens, sets]) shelf.put('own-3', tight);
    expect(letterOf(opens.font('own-3')!, 'a')!.paths).not.toHaveLength(0);
    expect(sets.wrongWith('own-3')).toMatch(/still packed as WOFF2/);
    sets.put('own-4', openedFont(tight, 'allura'));
    expect(sets.font('own-4')!.set('Lock', joined)).toEqual(opens.font('own-3')!.set('Lock', joined));
  });
  test('that cannot be used say why', () => {
    const wrong =
      (bytes: number[], name: string, open = openedFont) =>
      () =>
        loadFont(Uint8Array.from(bytes), name, testShaper, open);
    expect(wrong([0x77, 0x4f, 0x46, 0x32, 0, 0], 'new.woff2')).toThrow(/"new\.woff2".*damaged/);
    expect(wrong([0x74, 0x74, 0x63, 0x66, 0, 0], 'many.ttc')).toThrow(/collection/);
    expect(wrong([0x77, 0x4f, 0x46, 0x32, 0x74, 0x74, 0x63, 0x66], 'many.woff2')).toThrow(/"many\.woff2".*collection/);
    // Who sets letters alone opens no such file, and says so.
    expect(wrong([0x77, 0x4f, 0x46, 0x32, 0, 0], 'new.woff2', sfntIn)).toThrow(/"new\.woff2".*WOFF2; take the TTF/);
    expect([endingOf(shippedFile('allura')), endingOf(sfntIn(shippedFile('allura'), 'allura'))]).toEqual([
      '.woff',
      '.ttf',
    ]);
    const shelf = new FontShelf(testArt.fileOf);
    shelf.put('own-2', Uint8Array.from([1, 2, 3]));
    expect(shelf.font('own-2')).toBeNull();
    expect(shelf.wrongWith('own-2')).toMatch(/no font/);
  });
});
