import type { FitPlace } from '../proof/fit';

/** Something that keeps pieces from going together or coming out, or that will be seen, and where. */
export interface Trouble {
  readonly text: string;
  readonly at: FitPlace | null;
}
