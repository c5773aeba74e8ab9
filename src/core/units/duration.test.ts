import { durationText } from './duration';

it.each([
  [0, '0 s'],
  [0.5, '30 s'],
  [0.99, '59 s'],
  [1, '1 min'],
  [4.26, '4.3 min'],
  [9.96, '10 min'],
  [59.6, '1 h'],
  [110.7, '1 h 51 min'],
  [600, '10 h'],
])('%s minutes are said as %s', (minutes, text) => expect(durationText(minutes)).toBe(text));
