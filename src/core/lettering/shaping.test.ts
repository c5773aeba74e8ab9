import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import bidiFactory from 'bidi-js';
import { boundsOfPaths, flatten } from '../geometry/path';
import { normalise, regionArea } from '../geometry/region';
import { letterOf, shippedFile, shippedFont, testShaper } from '../testing/fonts';
import { fontCatalogue } from './catalogue';
import { FontError, loadFont, type LoadedFont, type Setting } from './font';
import { layOut, type Lettering } from './layout';
import { runsOf } from './runs';
import { openedFont } from './openedFont';
import { openWoff2 } from './woff2';

const joined: Setting = { kerning: true, ligatures: true };
const single: Setting = { kerning: false, ligatures: false };
const latin = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789.,&’';
const fromPackage = (file: string) => readFileSync(`node_modules/@fontsource/${file}`);
/** An alphabet whose letters join, and run from right to left. */
const joining = loadFont(fromPackage('amiri/files/amiri-arabic-400-normal.woff'), 'Amiri', testShaper);
const DAM = 'سد';
const LOCK = 'قفل';

const setting = (text: string, more: Partial<Lettering> = {}): Lettering => ({
  text,
  capHeight: 20,
  tracking: 0,
  kerning: true,
  leading: 1.6,
  align: 'left',
  stretch: 100,
  ...more,
});
const widthOf = (font: LoadedFont, text: string, how: Setting) =>
  font.set(text, how).letters.reduce((n, l) => n + l.width + l.kern, 0);

describe('letters in a line', () => {
  it.each(fontCatalogue.map((f) => f.id))('of %s each stand by themselves unless they are joined', (id) => {
    const font = shippedFont(id);
    const { letters, missing } = font.set(latin, single);
    expect(missing).toEqual([]);
    expect(letters.map((l) => [l.at, l.count, l.kern])).toEqual([...latin].map((_, i) => [i, 1, 0]));
    letters.forEach((l, i) => {
      const alone = letterOf(font, latin[i])!;
      expect([l.paths, l.width]).toEqual([alone.paths, alone.width]);
      expect(l.paths.every((p) => p.closed && p.segments.length > 0)).toBe(true);
    });
    // Capitals without round strokes are as high as the font says.
    expect(boundsOfPaths(letterOf(font, 'H')!.paths)!.y1 / font.capHeight).toBeGreaterThan(0.9);
  });
  it('come nearer where the font says so', () => {
    const font = shippedFont('libre-baskerville');
    const [a, v] = font.set('AV', joined).letters;
    expect(a.kern).toBeLessThan(0);
    expect([a.width, v.width, v.kern]).toEqual([letterOf(font, 'A')!.width, letterOf(font, 'V')!.width, 0]);
    expect(widthOf(font, 'AV', single)).toBeCloseTo(a.width + v.width, 9);
  });
  it.each(['libre-baskerville', 'zilla-slab', 'allura', 'archivo'])('of %s are drawn as one where they touch', (id) => {
    const font = shippedFont(id);
    const words = 'Lock office 7';
    const { letters } = font.set(words, joined);
    expect(letters.some((l) => l.count > 1)).toBe(true);
    // Every character is there once, in its order.
    expect(letters.map((l) => l.at)).toEqual(
      letters.map((_, i) => letters.slice(0, i).reduce((n, l) => n + l.count, 0)),
    );
    expect(letters.reduce((n, l) => n + l.count, 0)).toBe(words.length);
    // One that is moved by hand is not.
    const apart = font.set(words, { ...joined, apart: (at) => words[at] === 'f' });
    expect(apart.letters.filter((l) => words[l.at] === 'f' && l.count > 1)).toEqual([]);
  });
  it('change with their neighbours in a script that joins', () => {
    const font = shippedFont('dancing-script');
    const pair = font.set('or', joined).letters;
    expect(font.set('or', { ...joined, ligatures: false }).letters).toHaveLength(2);
    expect(pair.map((l) => l.count)).toEqual([2]);
    expect(pair[0].paths).not.toEqual(font.set('o', joined).letters[0].paths);
  });
  it('that the font lacks are named and left out, and blanks keep their room', () => {
    const font = shippedFont('cinzel');
    const { letters, missing } = font.set('A漢 😀B\t', joined);
    expect(missing).toEqual(['漢', '😀']);
    expect(letters.map((l) => l.at)).toEqual([0, 2, 4, 5]);
    expect(letters[1].paths.length + letters[3].paths.length).toBe(0);
    expect(letters[1].width).toBeGreaterThan(0);
  });
  it('stand with their marks, however the text writes them', () => {
    const font = shippedFont('archivo');
    const whole = font.set('é', joined).letters;
    const parts = font.set('e\u0301', joined).letters;
    expect(parts).toHaveLength(1);
    expect([parts[0].count, parts[0].paths]).toEqual([2, whole[0].paths]);
  });
});

describe('letters that run from right to left', () => {
  it('join, and are in the order in which they are seen', () => {
    const { letters, missing } = joining.set(LOCK, joined);
    expect(missing).toEqual([]);
    expect(letters.map((l) => l.at)).toEqual([2, 1, 0]);
    // In the middle of a word a letter is drawn otherwise than by itself; that is no matter of ligatures.
    for (const how of [joined, single]) {
      const [, middle] = joining.set(LOCK, how).letters;
      expect(middle.paths).not.toEqual(letterOf(joining, LOCK[1])!.paths);
    }
  });
  it.each([`${DAM} (${DAM})`, `${DAM} (7)`, `(${DAM})`, `${DAM} 7 (a)`, `(a) ${DAM}`, `(7) ${DAM}`, '(Ж)'])(
    'stand in brackets that open towards them: %s',
    (line) => {
      // A font that has both brackets, though none of these letters.
      const font = shippedFont('archivo');
      const { levels } = bidiFactory().getEmbeddingLevels(line);
      const { letters } = font.set(line, joined);
      for (const [bracket, other] of ['()', ')(']) {
        const at = line.indexOf(bracket);
        // In what runs from the right the opening bracket is drawn as the closing one is otherwise.
        const wanted = letterOf(font, levels[at] % 2 ? other : bracket)!;
        expect(letters.find((l) => l.at === at)!.paths).toEqual(wanted.paths);
      }
    },
  );
  it('keep the space of the letter that is read first between it and the next', () => {
    const at = (spaces: Record<string, number>) =>
      layOut(setting(DAM, { spaces, kerning: false, ligatures: false }), joining);
    // The second letter lies to the left: what comes behind the first moves them apart.
    const em = (20 / joining.capHeight) * joining.unitsPerEm;
    expect(at({ 0: 100 }).width - at({}).width).toBeCloseTo(em / 10, 9);
    expect(at({ 1: 100 }).width).toBeCloseTo(at({}).width, 9);
  });
  it('stand among others as the standard says', () => {
    const bidi = bidiFactory();
    fc.assert(
      fc.property(
        fc.string({
          unit: fc.constantFrom('a', 'B', ' ', '7', '.', '(', ')', '-', 'س', 'د', 'ق', 'א', 'ש', 'ж'),
          maxLength: 14,
        }),
        (line) => {
          const seen = runsOf(line).flatMap(({ from, to, rightToLeft }) => {
            const part = Array.from({ length: to - from }, (_, i) => from + i);
            return rightToLeft ? part.reverse() : part;
          });
          // Blanks at the end of a line go back to its edge when it is drawn on a screen; on a plate they are nothing.
          const inked = (list: number[]) => list.filter((i) => line[i] !== ' ');
          const wanted = bidi.getReorderedIndices(line, bidi.getEmbeddingLevels(line));
          expect(inked(seen)).toEqual(inked(wanted));
        },
      ),
      { numRuns: 500 },
    );
  });
  it('are not looked for where there are none', () =>
    fc.assert(
      fc.property(fc.string({ unit: 'binary-ascii', maxLength: 30 }), (line) => {
        const runs = runsOf(line);
        expect(runs.every((r) => !r.rightToLeft)).toBe(true);
        expect(runs.map((r) => line.slice(r.from, r.to)).join('')).toBe(line);
        expect(runs.length).toBeLessThanOrEqual(1);
      }),
    ));
});

describe('WOFF2 files', () => {
  const tight = (id: string) =>
    fromPackage(fontCatalogue.find((f) => f.id === id)!.source.replace(/^.*@fontsource\//, '') + '2');
  // Some of the two files were made from their drawings at different times: points differ there, letters do not.
  const alike = ['zilla-slab', 'allura', 'alfa-slab-one', 'unifrakturmaguntia', 'bebas-neue', 'varela-round'];
  it.each(fontCatalogue.map((f) => f.id))('%s: draws as its WOFF does', (id) => {
    const [a, b] = [shippedFont(id), loadFont(tight(id), id, testShaper, openedFont)];
    expect([b.capHeight, b.unitsPerEm]).toEqual([a.capHeight, a.unitsPerEm]);
    for (const line of [latin, 'Lock office', 'ÀÉîõüçñß«»½', 'AVATAR To']) {
      const [one, other] = [a, b].map((f) => f.set(line, joined));
      expect(other.letters).toHaveLength(one.letters.length);
      if (alike.includes(id)) expect(JSON.stringify(other)).toBe(JSON.stringify(one));
      else
        other.letters.forEach((l, i) => {
          const inked = [l, one.letters[i]].map((q) => regionArea(normalise(q.paths.map((p) => flatten(p, 2)))));
          expect(Math.abs(inked[0] - inked[1])).toBeLessThan(0.015 * inked[1] + 60);
          expect(Math.abs(l.width - one.letters[i].width)).toBeLessThanOrEqual(2);
        });
    }
  });
  it('that are damaged are refused or opened, never thrown at and never read for ever', () => {
    const good = new Uint8Array(tight('cinzel'));
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(good.length - 1), fc.nat(255)), { maxLength: 4 }),
        fc.array(fc.tuple(fc.nat(200), fc.nat(255)), { maxLength: 3 }),
        fc.nat(good.length),
        fc.boolean(),
        (hits, head, end, whole) => {
          const file = good.slice(0, whole ? good.length : end);
          for (const [at, v] of [...hits, ...head]) if (at < file.length) file[at] = v;
          expect([true, false]).toContain(openWoff2(file, 1e6) === null);
          try {
            loadFont(file, 'lock', testShaper, openedFont).set('Lock 7 office', joined);
          } catch (e) {
            expect(e).toBeInstanceOf(FontError);
          }
        },
      ),
      { numRuns: 150 },
    );
    expect(openWoff2(good, 1e6)).not.toBeNull();
    expect(openWoff2(good, 1e4)).toBeNull();
  });
});

it('a shipped font that is damaged anywhere is refused in words, or draws what is left of it', () => {
  const good = shippedFile('allura');
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(good.length - 1), fc.nat(255)), { minLength: 1, maxLength: 30 }), (hits) => {
      const file = good.slice();
      for (const [at, v] of hits) file[at] = v;
      try {
        loadFont(file, 'lock', testShaper).set('Lock 7 office', joined);
      } catch (e) {
        expect(e).toBeInstanceOf(FontError);
      }
    }),
    { numRuns: 60 },
  );
});
