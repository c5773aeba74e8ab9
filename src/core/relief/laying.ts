import { fieldsKernel, type FieldsKernel } from './fieldsKernel';
import type { Meeting } from './form';
import { lay, type Form } from './stack';

/** A form that is to be laid on what is under it. */
export interface Layer extends Pick<Form, 'meets' | 'strength' | 'base'> {
  readonly z: Float32Array;
  /** How much it counts at each node, 0 to 1; null: wholly. */
  readonly weights: Float32Array | null;
}

/** As the kernel numbers them. */
const MEETS: Record<Meeting, number> = { add: 0, sink: 1, higher: 2, lower: 3, replace: 4 };
/** Nodes that are worked on at once: what is under them stays where a processor has it at hand while one form after another comes. */
const STRIP = 1 << 15;

let kernel: FieldsKernel | null | undefined;

/**
 * Lays forms on what is under them, one after the other, in place (`lay`): by the kernel where this machine has it, in single floats.
 * Heights in mm, NaN where empty.
 */
export function layAll(under: Float32Array, layers: readonly Layer[]): void {
  kernel ??= fieldsKernel(12 * STRIP);
  if (!kernel) return layers.forEach((l) => lay(under, l.z, l, l.weights));
  const { run, memory, at } = kernel;
  const [u, f, w] = [0, 1, 2].map((k) => new Float32Array(memory.buffer, at(k, STRIP), STRIP));
  for (let from = 0; from < under.length; from += STRIP) {
    const to = Math.min(under.length, from + STRIP);
    u.set(under.subarray(from, to));
    for (const { z, weights, meets, base, strength } of layers) {
      f.set(z.subarray(from, to));
      if (weights) w.set(weights.subarray(from, to));
      // Four nodes at a time: the last of them may lie beyond, where nobody looks.
      run.lay(at(0, STRIP), at(1, STRIP), weights ? at(2, STRIP) : 0, to - from, MEETS[meets], base, strength);
    }
    under.set(u.subarray(0, to - from), from);
  }
}
