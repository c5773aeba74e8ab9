import type { OneSetup } from '@/core/job/job';
import { formKindOf } from '@/core/relief/registry';
import { MOST_NUMBERS, MOST_STROKES, type Brush, type BrushStroke } from '@/core/relief/sculpt';
import type { Form } from '@/core/relief/stack';
import { roundInches } from '@/core/units/round';
import { setView, useView } from '@/ui/view';
import { changeForm, jobNow } from './edits';
import { tell } from './tell';

/** The form that is open, if it is one of a brush and is not left out. */
export const brushedForm = (job: OneSetup | null, formId: string | null): Form | undefined => {
  const form = job?.relief.forms.find((f) => f.id === formId);
  return form?.visible && formKindOf(form.kind).brushed ? form : undefined;
};

/** The brush as it is: where its size was not chosen, a twentieth of the shorter side of the blank. */
export function brushNow(job: Pick<OneSetup, 'blank' | 'unit'>, brush = useView.getState().brush): Brush {
  const part = Math.min(job.blank.width, job.blank.height) / 20;
  const fresh = job.unit === 'mm' ? Math.round(2 * part) / 2 : roundInches(part);
  return { ...brush, radius: brush.radius ?? Math.max(0.5, fresh) };
}
export const setBrush = (change: Partial<Brush>): void => setView((v) => ({ brush: { ...v.brush, ...change } }));

const strokesOf = (f: Form): BrushStroke[] => f.values.strokes as BrushStroke[];

/**
 * One more stroke, or the places to which the one goes on that was begun with this key. Tells whether it was taken: a form holds
 * so many strokes and no more, which is said.
 */
export function brushStroke(
  formId: string,
  brush: Brush,
  points: readonly number[],
  key: symbol,
  begun: boolean,
): boolean {
  // As it is now: a hand may be quicker than the page that shows it.
  const form = brushedForm(jobNow(), formId);
  if (!form) return false;
  const drawn = strokesOf(form);
  const last = drawn[drawn.length - 1];
  // A stroke that has become as long as one may be goes on as another, in the same step.
  const goesOn = begun && last && last.points.length + points.length <= MOST_NUMBERS;
  if (!goesOn && drawn.length >= MOST_STROKES) {
    tell('error', `"${form.name}" holds ${MOST_STROKES} strokes, and no more. Add another form for sculpting.`);
    return false;
  }
  changeForm(
    form.id,
    'Brush stroke',
    (f) => {
      const strokes = strokesOf(f);
      if (goesOn) strokes[strokes.length - 1].points.push(...points);
      else strokes.push({ ...brush, points: [...points] });
    },
    key,
  );
  return true;
}
/** The stroke that a hand is at, by the key of its step. */
let inHand: { readonly formId: string; readonly key: symbol } | null = null;
export const holdStroke = (formId: string, key: symbol): void => void (inHand = { formId, key });
export const letStroke = (): void => void (inHand = null);
export const isInHand = (key: symbol): boolean => inHand?.key === key;
/** Gives up the stroke that a hand is at, in the step that it began: the finger belonged to something else. */
export function giveUpStroke(): void {
  if (!inHand) return;
  const { formId, key } = inHand;
  inHand = null;
  changeForm(formId, 'Brush stroke', (f) => void strokesOf(f).pop(), key);
}
/** Takes the last stroke back, whatever else was done since. */
export const dropStroke = (formId: string): void =>
  changeForm(formId, 'Take a stroke back', (f) => void strokesOf(f).pop());
