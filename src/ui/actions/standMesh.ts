import { reliefFile } from '@/compute/reliefFiles';
import { sizesTurned, type Standing } from '@/core/relief/mesh';
import { mostRise } from '@/core/relief/guess';
import type { Form } from '@/core/relief/stack';
import type { Field } from '@/core/units/fields';
import { formatLength } from '@/core/units/length';
import { saysOf } from '@/core/units/says';
import { changeForm, jobNow } from './edits';
import { readByHelper } from './relief';
import { tell } from './tell';

const STANDING: readonly string[] = ['up', 'tipX', 'tipY', 'turn'] satisfies (keyof Standing)[];
type Values = Standing & {
  readonly mesh: string;
  readonly width: number;
  readonly height: number;
  readonly rise: number;
};

/** Whether a value of a form says how its mesh stands. */
export const standsBy = (form: Form, key: string): boolean => form.kind === 'mesh' && STANDING.includes(key);

/** Changes are counted: one that is overtaken by another does nothing. */
let asked = 0;

/**
 * Stands a mesh otherwise: what it measures then is asked of its file, so that it keeps its shape. A rise that the thickness does not
 * hold is made shallower, which is said.
 */
export async function standMesh(form: Form, key: string, value: unknown, field: Field): Promise<void> {
  const was = form.values as unknown as Values;
  const next: Values = { ...was, [key]: value };
  const file = reliefFile(was.mesh);
  const label = `Change ${field.label.toLowerCase()}`;
  const mine = ++asked;
  if (!file) return changeForm(form.id, label, (f) => void (f.values = { ...f.values, [key]: value }));
  try {
    const [from, to] = await readByHelper(file.name, (api) => api.meshSizes(file.name, file.bytes, [was, next]));
    const job = jobNow();
    if (mine !== asked || !job) return;
    const quarters = (next.turn - was.turn) / 90;
    const [width, height, rise] = sizesTurned([was.width, was.height, was.rise], from, to, {
      aboutZ: key === 'turn',
      quarters: Number.isInteger(quarters) ? Math.abs(quarters) : null,
    });
    const most = Math.max(mostRise(job.blank), key === 'turn' ? rise : 0);
    changeForm(form.id, label, (f) => {
      // Whatever else has been changed meanwhile stays.
      f.values = { ...f.values, [key]: value, width, height, rise: Math.min(rise, most) };
    });
    if (rise > most)
      tell(
        'info',
        `It would rise ${formatLength(rise, job.unit)} ${job.unit}: it was made shallower, to half the thickness.`,
      );
  } catch (e) {
    tell('error', saysOf(e, `"${file.name}" could not be read again: it stands as it stood.`));
  }
}
