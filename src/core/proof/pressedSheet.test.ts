import { gridOf } from '../relief/field';
import { pressedSheet } from './pressedSheet';

const grid = gridOf(6, 1, 1);
/** Of one row: heights of the sunk die, and of the raised one over it. */
const pressed = (sunk: readonly number[], raised: readonly number[], high: number, sheet: number) => {
  const z = new Float32Array(grid.cols * grid.rows).map((_, i) => sunk[i % grid.cols]);
  const { field, under, thickness } = pressedSheet({ pocket: { ...grid, z }, plugAt: (c) => raised[c] }, high, sheet);
  const row = (f: Float32Array) => [...f.slice(0, grid.cols)].map((v) => Math.round(v * 1000) / 1000 + 0);
  // Of the lower face depths count from its lowest place.
  return { top: row(field.z), bottom: row(under.z.map((d) => -thickness - d)), thickness };
};

it('a sheet follows the raised die above and the sunk one below, and hangs where these are further apart', () => {
  //            face  wall  floor floor  a hole  beyond the raised die
  const sunk = [0, -0.5, -1, -1, -3, 0, 0];
  const raised = [-1, -0.4, 0, 0, -1, NaN, NaN];
  const { top, bottom, thickness } = pressed(sunk, raised, 1, 0.25);
  expect(top).toEqual([0, -0.6, -1, -1, 0, 0, 0]);
  expect(bottom).toEqual([-0.25, -0.75, -1.25, -1.25, -0.25, -0.25, -0.25]);
  expect(thickness).toBeCloseTo(1.25, 6);
});
