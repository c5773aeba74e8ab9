import { setView, type View } from '@/ui/view';

/** Asks what a unit of a file is, mm; null when the maker would rather leave it. */
export const askUnit = (question: Omit<NonNullable<View['unitQuestion']>, 'answer'>): Promise<number | null> =>
  new Promise((answer) => setView({ unitQuestion: { ...question, answer } }));
