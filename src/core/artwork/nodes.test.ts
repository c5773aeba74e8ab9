import fc from 'fast-check';
import { real } from '../testing/real';
import { flatten, reversePath as reverse, type Path } from '../geometry/path';
import { regionArea } from '../geometry/region';
import { bruteDistance } from '../testing/independent';
import { arcThrough, back, begin, finish, move, polar, press, preview, release, steady, type Drawing } from './draw';
import {
  addNode,
  close,
  deleteNode,
  isSmooth,
  moveHandle,
  moveNode,
  nearest,
  nodeAt,
  nodeCount,
  setSmooth,
  setStraight,
  simplify,
  splitAt,
  startAt,
} from './nodes';

const square: Path = {
  x: 0,
  y: 0,
  closed: true,
  segments: [
    { k: 'line', x: 10, y: 0 },
    { k: 'line', x: 10, y: 10 },
    { k: 'line', x: 0, y: 10 },
    { k: 'line', x: 0, y: 0 },
  ],
};
const mixed: Path = {
  x: 0,
  y: 0,
  closed: false,
  segments: [
    { k: 'cubic', x1: 3, y1: 4, x2: 8, y2: 5, x: 10, y: 0 },
    { k: 'arc', x: 20, y: 10, cx: 20, cy: 0, ccw: false },
    { k: 'line', x: 25, y: 10 },
  ],
};
const area = (p: Path) => regionArea([flatten(p, 1e-4)]);
const same = (a: Path, b: Path) => {
  const [fa, fb] = [flatten(a, 1e-4), flatten(b, 1e-4)];
  let worst = 0;
  for (let i = 0; i < fa.length; i += 2) worst = Math.max(worst, bruteDistance([fb], fa[i], fa[i + 1]));
  return worst;
};

describe('nodes', () => {
  it('are added anywhere without changing what is drawn', () => {
    fc.assert(
      fc.property(fc.nat(2), real(0.02, 0.98), (segment, t) => {
        const p = addNode(mixed, segment, t);
        expect(nodeCount(p)).toBe(nodeCount(mixed) + 1);
        expect(same(p, mixed)).toBeLessThan(1e-3);
      }),
    );
  });

  it('move with their handles, and closed paths stay closed', () => {
    const p = moveNode(square, 0, -5, -5);
    expect(nodeAt(p, 0)).toEqual({ x: -5, y: -5 });
    expect(p.segments[3]).toMatchObject({ x: -5, y: -5 });
    expect(area(p)).toBeCloseTo(150, 6);
    const q = moveNode(mixed, 1, 12, 1);
    expect(q.segments[0]).toMatchObject({ x: 12, y: 1, x2: 10, y2: 6 });
    expect(q.segments[1].k).not.toBe('arc');
  });

  it('are taken away until too few are left', () => {
    expect(area(deleteNode(square, 2)!)).toBeCloseTo(50, 6);
    expect(area(deleteNode(square, 0)!)).toBeCloseTo(50, 6);
    expect(nodeCount(deleteNode(mixed, 0)!)).toBe(3);
    expect(nodeAt(deleteNode(mixed, 3)!, 2)).toEqual({ x: 20, y: 10 });
    const triangle = deleteNode(square, 1)!;
    expect(deleteNode(triangle, 1)).toBeNull();
  });

  it('are smooth or corners, straight or curved', () => {
    const p = setSmooth(square, 1, true);
    expect(isSmooth(p, 1)).toBe(true);
    expect(isSmooth(setSmooth(p, 1, false), 1)).toBe(false);
    expect(same(setStraight(setStraight(square, 0, false), 0, true), square)).toBeLessThan(1e-9);
    const bent = moveHandle(p, 0, 2, 9, 4, true);
    expect(isSmooth(bent, 1)).toBe(true);
    expect(isSmooth(moveHandle(p, 0, 2, 9, 4, false), 1)).toBe(false);
  });

  it('begin, part, close and turn paths round', () => {
    expect(area(startAt(square, 2))).toBeCloseTo(100, 6);
    expect(nodeAt(startAt(square, 2), 0)).toEqual({ x: 10, y: 10 });
    expect(splitAt(square, 1)[0]).toMatchObject({ closed: false, x: 10, y: 0 });
    const [a, b] = splitAt(mixed, 2);
    expect([a.segments.length, b.segments.length]).toEqual([2, 1]);
    expect(close(splitAt(square, 0)[0]).segments).toHaveLength(4);
    expect(close(mixed).segments).toHaveLength(4);
    expect(area(reverse(square))).toBeCloseTo(-100, 6);
    expect(same(reverse(reverse(mixed)), mixed)).toBeLessThan(1e-9);
  });

  it('become fewer within a stated tolerance', () => {
    const many: Path = {
      x: 50,
      y: 0,
      closed: true,
      segments: Array.from({ length: 400 }, (_, i) => ({
        k: 'line' as const,
        x: 50 * Math.cos((2 * Math.PI * (i + 1)) / 400),
        y: 30 * Math.sin((2 * Math.PI * (i + 1)) / 400),
      })),
    };
    const fewer = simplify(many, 0.05);
    expect(fewer.segments.length).toBeLessThan(20);
    expect(same(fewer, many)).toBeLessThan(0.08);
  });

  it('are found by the nearest place', () => {
    const n = nearest(mixed, 22, 11);
    expect(n.segment).toBe(2);
    expect(n.t).toBeCloseTo(0.4, 6);
    expect(n.distance).toBeCloseTo(1, 9);
  });
});

describe('drawing', () => {
  const run = (
    tool: Parameters<typeof begin>[0],
    ...points: [number, number][]
  ): { drawing: Drawing; done: Path | null } => {
    let state: { drawing: Drawing; done: Path | null } = { drawing: begin(tool), done: null };
    for (const [x, y] of points) {
      state = press(move(state.drawing, x, y), x, y, 1);
      state = { ...state, drawing: release(state.drawing) };
    }
    return state;
  };
  it('closes on its first point', () => {
    const { done } = run('line', [0, 0], [10, 0], [10, 10], [0.5, 0.3]);
    expect(done!.closed).toBe(true);
    expect(area(done!)).toBeCloseTo(50, 6);
  });
  it('ends open by Enter, and goes back a point at a time', () => {
    const { drawing } = run('line', [0, 0], [10, 0], [10, 10]);
    expect(finish(drawing)!.segments).toHaveLength(2);
    expect(finish(back(drawing)!)!.segments).toHaveLength(1);
    expect(finish(begin('line'))).toBeNull();
    expect(back(begin('line'))).toBeNull();
  });
  it('shows what a press would make', () => {
    const { drawing } = run('line', [0, 0]);
    expect(preview(move(drawing, 3, 4))!.segments).toEqual([{ k: 'line', x: 3, y: 4 }]);
    expect(polar(drawing, 5, 90)).toEqual({ x: expect.closeTo(0, 9), y: 5 });
    expect(steady(drawing, 10, 0.4).y).toBeCloseTo(0, 9);
  });
  it('drags handles out of smooth nodes', () => {
    let d = press(begin('curve'), 0, 0, 1).drawing;
    d = release(move(d, 0, 5));
    d = press(d, 10, 0, 1).drawing;
    const p = finish(release(move(d, 10, -5)))!;
    expect(p.segments[0]).toEqual({ k: 'cubic', x1: 0, y1: 5, x2: 10, y2: 5, x: 10, y: 0 });
  });
  it('puts an arc through three points', () => {
    fc.assert(
      fc.property(real(-3, 3), real(0.3, 2.8), real(0.3, 2.8), fc.boolean(), (a0, d1, d2, ccw) => {
        const s = ccw ? 1 : -1;
        const on = (a: number) => ({ x: 3 + 7 * Math.cos(a), y: 4 + 7 * Math.sin(a) });
        const p = arcThrough(on(a0), on(a0 + s * (d1 + d2)), on(a0 + s * d1));
        const [arc] = p.segments;
        expect(arc.k).toBe('arc');
        if (arc.k !== 'arc') return;
        expect(Math.hypot(arc.cx - 3, arc.cy - 4)).toBeLessThan(1e-6);
        expect(nearest(p, on(a0 + s * d1).x, on(a0 + s * d1).y).distance).toBeLessThan(0.03);
      }),
    );
    expect(arcThrough({ x: 0, y: 0 }, { x: 2, y: 2 }, { x: 1, y: 1 }).segments[0].k).toBe('line');
  });
});
