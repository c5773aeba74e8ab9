import { newItem } from '../../artwork/item';
import { freshForm } from '../../relief/freshForm';
import { shippedLibrary } from '../../cutters/library';
import { finishing, roughing } from './reliefCuts';
import { newOneSetup, type OneSetup } from '../job';

/** An aluminium mould for wax tokens of the ferry: what is raised on the token is sunk here, and mirrored. */
export function ferryToken(): OneSetup {
  const job = newOneSetup('Ferry token mould');
  job.notes = 'Fenwater Lock: mould for the wax tokens of the ferry. Roughed, then finished in rows that cross.';
  job.blank = { ...job.blank, width: 80, height: 60, thickness: 12, material: 'aluminium', intoBed: 0.2 };
  const layer = (id: string, name: string, colour: string) => ({ id, name, colour, visible: true, locked: false });
  job.layers = [layer('layer-1', 'Token', '#1e2a2f')];
  const [x, y] = [40, 30];
  const circle = (id: string, name: string, d: number) =>
    newItem({ id, name, kind: 'ellipse', x, y, values: { width: d, height: d } });
  job.items = [
    circle('i-token', 'Token', 44),
    newItem({ id: 'i-rim', name: 'Rim', kind: 'ring', x, y, values: { diameter: 42, band: 3 } }),
    newItem({
      id: 'i-boat',
      name: 'Ferry',
      kind: 'motif',
      x,
      y: y + 2,
      values: { motif: 'boat', width: 28, height: 12 },
    }),
    newItem({
      id: 'i-words',
      name: 'ONE CROSSING',
      kind: 'lettering',
      x,
      y: y - 10.5,
      values: {
        ...{ kerning: true, leading: 1.6, align: 'centre', stretch: 100, baseline: 'straight', radius: 50, at: 90 },
        text: 'ONE CROSSING',
        tracking: 40,
        font: 'archivo',
        capHeight: 2.4,
      },
    }),
  ];
  const draft = { edge: 'bevel', angle: 80, top: 'capped' };
  job.relief = {
    baseDepth: 5,
    cell: null,
    forms: [
      freshForm('f-token', 'Token', 'outline', { ...draft, height: 3 }, { items: ['i-token'] }),
      freshForm('f-rim', 'Rim', 'outline', { ...draft, height: 1 }, { items: ['i-rim'] }),
      freshForm(
        'f-boat',
        'Ferry',
        'outline',
        { edge: 'round', over: 1.4, top: 'fitted', height: 1.2 },
        { items: ['i-boat'] },
      ),
      freshForm('f-words', 'Lettering', 'outline', { ...draft, height: 0.6 }, { items: ['i-words'] }),
      freshForm('f-mould', 'Mould', 'turned', { about: 'height', height: 2.5, mirror: 'x' }),
    ],
  };
  const library = shippedLibrary();
  job.cutters = ['flat-3', 'flat-1.5', 'taperedBall-6-0.25-5'].map((id) => library.find((c) => c.id === id)!);
  job.cuts = [
    roughing(['flat-3', 'flat-1.5'], 0.1, { 'flat-3': { stepDown: 0.5 }, 'flat-1.5': { stepDown: 0.25 } }),
    finishing('taperedBall-6-0.25-5', 'crossed', 45, 0.1),
  ];
  return job;
}
