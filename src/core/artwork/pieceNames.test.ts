import { circlePath } from '../geometry/path';
import { pieceNames } from './pieceNames';

test('pieces are named by their size and place, and never twice the same', () => {
  const at = (x: number, y: number, r = 4) => [circlePath(x, y, r)];
  expect(
    pieceNames('Heron', [at(0, 100), at(100, 100, 6.25), at(50, 50), at(0, 0), at(50, 0), at(50, 4)], 'mm'),
  ).toEqual([
    'Heron 8 × 8, top left',
    'Heron 12.5 × 12.5, top right',
    'Heron 8 × 8, middle',
    'Heron 8 × 8, bottom left',
    'Heron 8 × 8, bottom',
    'Heron 8 × 8, bottom 2',
  ]);
  expect(pieceNames('Disc', [at(7, 7, 12.7)], 'in')).toEqual(['Disc 1 × 1, middle']);
  expect(pieceNames('Nothing', [[]], 'mm')).toEqual(['Nothing']);
});
