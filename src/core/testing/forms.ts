import type { Grid } from '../relief/field';
import type { FormContext } from '../relief/form';
import { formKindOf } from '../relief/registry';

/** What a form is worked out from, on an empty stack and without files where nothing else is said. */
export const formContext = (grid: Grid, more: Partial<FormContext> = {}): FormContext => ({
  grid,
  region: [],
  lines: [],
  profile: [],
  mesh: () => null,
  picture: () => null,
  under: new Float32Array(grid.cols * grid.rows).fill(NaN),
  members: null,
  pixel: 0,
  ...more,
});

/** Heights of a form of a kind, with its defaults where nothing else is said. */
export const heightsOf = (kind: string, values: object, context: FormContext): Float32Array => {
  const k = formKindOf(kind);
  return k.evaluate({ ...(k.defaults as object), ...values } as never, context).z;
};
