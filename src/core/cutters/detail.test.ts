import { library } from '../testing/job';
import { cellFor, furrowWidth } from './detail';

const cutter = (id: string) => library.find((c) => c.id === id)!;

describe('the finest detail of a cutter', () => {
  it('is a chord of a ball, the whole of a flat one, and goes by the angle of a cone', () => {
    // 3 mm across, 0.1 mm deep.
    expect(furrowWidth(cutter('ball-3'))).toBeCloseTo(2 * Math.sqrt(0.1 * (3 - 0.1)), 9);
    expect(furrowWidth(cutter('flat-6'))).toBe(6);
    const v = cutter('v-12-60-0');
    expect(furrowWidth(v, 1)).toBeCloseTo(2 * Math.tan(Math.PI / 6), 9);
    expect(furrowWidth(v, 0.5)).toBeCloseTo(furrowWidth(v, 1) / 2, 9);
  });
  it('asks for nodes twice as near, but never nearer than is of use', () => {
    expect(cellFor(cutter('flat-6'), 0.02)).toBe(3);
    expect(cellFor(cutter('v-12-60-0'), 0.1)).toBe(0.1);
  });
});
