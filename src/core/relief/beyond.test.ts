import { beyondBlank, extentOf } from './beyond';
import { gridOf } from './field';
import { formKindOf } from './registry';

const [WIDTH, HEIGHT, CELL] = [40, 30, 0.5];
const grid = gridOf(WIDTH, HEIGHT, CELL);
/** Nodes within a disc are filled. */
const disc = (x: number, y: number, r: number): Float32Array =>
  Float32Array.from({ length: grid.cols * grid.rows }, (_, i) =>
    Math.hypot((i % grid.cols) * grid.cell - x, Math.floor(i / grid.cols) * grid.cell - y) <= r ? 1 : NaN,
  );
const round = (x: number, y: number, r: number) => ({ x0: x - r, y0: y - r, x1: x + r, y1: y + r });
const said = (x: number, y: number, r: number) => beyondBlank(round(x, y, r), disc(x, y, r), grid);

describe('a form at the edge of the blank', () => {
  it('is said to be cut off at whichever side, and nothing is said of one that just touches it', () => {
    expect(said(20, 15, 10)).toBeNull();
    expect(said(10, 15, 10)).toBeNull();
    for (const [x, y] of [
      [9, 15],
      [31, 15],
      [20, 9],
      [20, 21],
    ])
      expect(said(x, y, 10)).toMatch(/^Reaches beyond/);
  });
  it('is said to lie off it where nothing of it is on it', () => {
    for (const [x, y] of [
      [-11, 15],
      [51, 15],
      [20, -11],
      [20, 41],
    ])
      expect(said(x, y, 10)).toMatch(/^Lies off/);
  });
  it('is not cut off where only its frame reaches out, nor where it is everywhere', () => {
    expect(beyondBlank(round(20, 15, 25), disc(20, 15, 10), grid)).toBeNull();
    expect(beyondBlank(null, disc(20, 15, 100), grid)).toBeNull();
  });
  it('reaches as far as its frame does when it is turned, or as its outlines do', () => {
    const ornament = formKindOf('ornament');
    const values = { ...(ornament.defaults as object), ornament: 'rosette', x: 20, y: 15, width: 20, turn: 45 };
    const frame = ornament.frame!(values);
    const extent = extentOf(ornament, values, () => [])!;
    const half = (frame.width + frame.height) / 2 / Math.SQRT2;
    expect(extent.x1 - 20).toBeCloseTo(half, 9);
    expect(15 - extent.y0).toBeCloseTo(half, 9);
    const outline = formKindOf('outline');
    const loop = Float64Array.of(1, 2, 50, 2, 50, 20);
    expect(extentOf(outline, outline.defaults, () => [loop])).toEqual({ x0: 1, y0: 2, x1: 50, y1: 20 });
    const swept = formKindOf('swept');
    expect(extentOf(swept, swept.defaults, () => [loop])).toEqual({ x0: 1, y0: 2, x1: 50, y1: 20 });
    const picture = formKindOf('picture');
    const laid = (how: string) => extentOf(picture, { ...(picture.defaults as object), laid: how }, () => []);
    expect(laid('once')).not.toBeNull();
    expect(laid('tiled')).toBeNull();
    const texture = formKindOf('texture');
    expect(extentOf(texture, texture.defaults, () => [loop])).toBeNull();
  });
});
