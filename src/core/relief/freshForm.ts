import { formKindOf } from './registry';
import type { Form } from './stack';

/** A form of a kind with its defaults: what is not said is as it is for a fresh one. */
export const freshForm = (
  id: string,
  name: string,
  kind: string,
  values: object = {},
  more: Partial<Omit<Form, 'id' | 'name' | 'kind' | 'values'>> = {},
): Form => ({
  id,
  name,
  kind,
  group: null,
  visible: true,
  meets: 'add',
  strength: 1,
  base: 0,
  items: [],
  profile: { items: [] },
  mask: null,
  ...more,
  values: { ...(structuredClone(formKindOf(kind).defaults) as object), ...values },
});
