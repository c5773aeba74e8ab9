import { useOpenJob } from '@/store/openJob';
import { setView, useView } from '@/ui/view';
import { castAnew } from './casting';
import type { Action } from './registry';
import { drillDowels } from './setups';

const canCast = () => !!useOpenJob.getState().job?.cuts.length && !useOpenJob.getState().job?.casting;
const isTurnedOver = () => {
  const after = useOpenJob.getState().job?.at.after;
  return !!after && after.turned !== 'none';
};
const hasPick = () => useView.getState().picked.length > 0;

/** Pieces that are made to fit, cast or turned over. */
export const pieceActions: readonly Action[] = [
  { id: 'dowels', name: 'Drill dowel holes to turn the blank over', enabled: isTurnedOver, run: drillDowels },
  {
    id: 'mould',
    name: 'Make a mould of what is picked',
    enabled: hasPick,
    run: () => setView({ mould: 'picked' }),
  },
  {
    id: 'relief-mould',
    name: 'Make a mould of the relief',
    enabled: () => !!useOpenJob.getState().job?.relief.forms.length,
    run: () => setView({ mould: 'relief' }),
  },
  { id: 'casting', name: 'See what is cast in this mould', enabled: canCast, run: castAnew },
  {
    id: 'inlay',
    name: 'Make a V-inlay of the picked outlines',
    enabled: hasPick,
    run: () => setView({ inlay: 'leaning' }),
  },
  {
    id: 'straight-inlay',
    name: 'Make a straight inlay of the picked outlines',
    enabled: hasPick,
    run: () => setView({ inlay: 'upright' }),
  },
  {
    id: 'dies',
    name: 'Make embossing dies of the picked outlines',
    enabled: hasPick,
    run: () => setView({ inlay: 'dies' }),
  },
];
