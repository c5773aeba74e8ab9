import { cuttingLength, profileOf, type Cutter } from '../cutters/cutter';
import { shapeOf } from '../cutters/registry';
import { ARC_CCW, isArc, RAPID, sweepOf, type Motion } from '../motion/motion';
import type { HeightField } from '../relief/field';
import { makeRemover, type Remover } from './removal';
import type { PlacedProgram } from './placed';

/** Material met where none should be: by a rapid, or by what lies above the cutting edges. */
export interface Clash {
  readonly kind: 'rapid' | 'shank';
  readonly cutId: string | null;
  readonly x: number;
  readonly y: number;
  readonly depth: number;
}

/** Clashes shallower than this (mm) are the rounding of the program and of the field. */
const CLASH = 0.02;
const ARC_SAGITTA = 0.0008;

const sweptOf = (c: Cutter) => {
  const shape = shapeOf(c.shape);
  return { form: shape.form(c.values), profile: profileOf(c), radiusAt: (h: number) => shape.radiusAt(c.values, h) };
};

export const removerOf = (field: HeightField, cutter: Cutter): Remover => makeRemover(field, sweptOf(cutter));

/** Cuts one move (from the end of move i - 1) out of the field; arcs as chords of sagitta below 0.001 mm. */
export function cutMove(remover: Remover, m: Motion, i: number): void {
  if (!isArc(m.kind[i])) {
    remover.cut(m.x[i - 1], m.y[i - 1], m.z[i - 1], m.x[i], m.y[i], m.z[i]);
    return;
  }
  const r = Math.hypot(m.x[i - 1] - m.cx[i], m.y[i - 1] - m.cy[i]);
  const sweep = sweepOf(m, i);
  const n = Math.max(1, Math.ceil(sweep / (r > ARC_SAGITTA ? 2 * Math.acos(1 - ARC_SAGITTA / r) : Math.PI / 2)));
  const a0 = Math.atan2(m.y[i - 1] - m.cy[i], m.x[i - 1] - m.cx[i]);
  const sign = m.kind[i] === ARC_CCW ? 1 : -1;
  let x = m.x[i - 1];
  let y = m.y[i - 1];
  let z = m.z[i - 1];
  for (let k = 1; k <= n; k++) {
    const a = a0 + (sign * sweep * k) / n;
    const nx = k === n ? m.x[i] : m.cx[i] + r * Math.cos(a);
    const ny = k === n ? m.y[i] : m.cy[i] + r * Math.sin(a);
    const nz = m.z[i - 1] + ((m.z[i] - m.z[i - 1]) * k) / n;
    remover.cut(x, y, z, nx, ny, nz);
    x = nx;
    y = ny;
    z = nz;
  }
}

/**
 * Cuts whole programs out of a field, in order, and notes rapids and shanks that meet material as it is
 * at that moment.
 */
export function simulate(field: HeightField, programs: readonly PlacedProgram[], tools: ReadonlyMap<number, Cutter>, progress: (done: number) => void = () => {}): Clash[] {
  const clashes: Clash[] = [];
  let total = 0;
  for (const p of programs) for (const s of p.stretches) total += s.motion.count;
  let done = 0;
  for (const p of programs)
    for (const s of p.stretches) {
      const cutter = tools.get(s.tool);
      if (!cutter) {
        done += s.motion.count;
        continue;
      }
      const remover = removerOf(field, cutter);
      const edges = cuttingLength(cutter);
      const cone = cutter.shape === 'v' || cutter.shape === 'cone';
      // What follows the edges: the shank, or a cone's own largest width carried on.
      const shank = makeRemover(field, { form: { form: 'flat', radius: Math.max(cutter.shankDiameter / 2, cone ? shapeOf(cutter.shape).radius(cutter.values) : 0) }, profile: () => 0, radiusAt: () => Math.max(cutter.shankDiameter / 2, cone ? shapeOf(cutter.shape).radius(cutter.values) : 0) });
      const m = s.motion;
      for (let i = 1; i < m.count; i++, done++) {
        if ((done & 1023) === 0) progress(done / total);
        if (m.kind[i] === RAPID) {
          if (m.z[i] >= 0 && m.z[i - 1] >= 0) continue;
          const deep = remover.clash(m.x[i - 1], m.y[i - 1], m.z[i - 1], m.x[i], m.y[i], m.z[i]);
          if (deep > CLASH && clashes.length < 1000) clashes.push({ kind: 'rapid', cutId: s.cutId, x: m.x[i], y: m.y[i], depth: deep });
          if (deep > 0) remover.cut(m.x[i - 1], m.y[i - 1], m.z[i - 1], m.x[i], m.y[i], m.z[i]);
          continue;
        }
        if (m.z[i] < -edges - 1e-6 || m.z[i - 1] < -edges - 1e-6) {
          cutMove(remover, m, i);
          remover.settle();
          const deep = shank.clash(m.x[i - 1], m.y[i - 1], m.z[i - 1] + edges, m.x[i], m.y[i], m.z[i] + edges);
          if (deep > CLASH && clashes.length < 1000) clashes.push({ kind: 'shank', cutId: s.cutId, x: m.x[i], y: m.y[i], depth: deep });
          continue;
        }
        cutMove(remover, m, i);
      }
      remover.settle();
    }
  progress(1);
  return clashes;
}
