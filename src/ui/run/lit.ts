import { atProof } from '@/compute/engineHandle';
import { useOpenJob } from '@/store/openJob';
import { setView } from '@/ui/view';

const setupShown = () => useOpenJob.getState().shownId ?? '';

/** Lights the move of a program line on the table. */
export async function lightLine(file: string, line: number): Promise<void> {
  setView({ lit: await atProof.lineOnTable(setupShown(), file, line) });
}

/** Lights the line that runs nearest to a point of the table, and shows it in the text. */
export async function lightNear(x: number, y: number, reach: number): Promise<void> {
  const lit = await atProof.lineNear(setupShown(), x, y, reach);
  if (lit) setView({ lit, file: lit.file });
}
