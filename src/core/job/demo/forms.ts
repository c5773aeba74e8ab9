import { formKindOf } from '../../relief/registry';
import type { Form } from '../../relief/stack';

/** A form of a demo job: what is not said is as it is for a fresh one. */
export const demoForm = (
  id: string,
  name: string,
  kind: string,
  values: object,
  more: Partial<Omit<Form, 'id' | 'name' | 'kind' | 'values'>> = {},
): Form => ({
  id,
  name,
  kind,
  visible: true,
  meets: 'add',
  strength: 1,
  base: 0,
  items: [],
  profile: { items: [] },
  mask: null,
  ...more,
  values: { ...(formKindOf(kind).defaults as object), ...values },
});
