import { getAt, setAt, type Field } from './fields';
import type { Unit } from './length';

/** From so many inches on, lengths count as round in steps of so many. */
const STEPS: readonly (readonly [number, number])[] = [
  [4, 0.5],
  [1, 0.25],
  [0.5, 1 / 8],
  [0.25, 1 / 16],
  [0.12, 1 / 32],
  [0.01, 0.005],
  [0.001, 0.001],
];

/** The round length in inches that is nearest to one, in mm: 18 mm is 3/4 in, 0.5 mm is 0.02 in. Zero stays zero, and nothing else becomes it. */
export function roundInches(mm: number): number {
  const inches = Math.abs(mm) / 25.4;
  const step = STEPS.find(([from]) => inches >= from * 0.97)?.[1] ?? 0.0005;
  return mm === 0 ? 0 : Math.sign(mm) * Math.max(step, Math.round(inches / step) * step) * 25.4;
}

/** Values with all lengths among them round in the unit in which they are shown. Those of millimetres are so already. */
export function roundLengths<V extends object>(values: V, fields: readonly Field[], unit: Unit): V {
  if (unit === 'mm') return values;
  return fields.reduce((v, f) => {
    const at = f.kind === 'length' ? getAt(v as Record<string, unknown>, f.key) : null;
    return typeof at === 'number' ? (setAt(v as Record<string, unknown>, f.key, roundInches(at)) as V) : v;
  }, values);
}
