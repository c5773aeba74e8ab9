import { budgetOf, finer, PROMISED } from './budget';

describe('the budget of a plan', () => {
  it('adds up to what is promised along contours and along axes, whatever is promised', () => {
    for (const total of [PROMISED, 0.01, 0.0005]) {
      const b = budgetOf(total);
      expect(b.flatten + b.offset + b.arc).toBeCloseTo(total, 12);
      expect(Math.max(b.flatten, b.sample, b.prune) + b.merge).toBeCloseTo(total, 12);
      expect(b.prune).toBeGreaterThan(b.flatten);
    }
  });
  it('is finer on steep walls, and never coarser', () => {
    expect(finer(budgetOf(), 4).merge).toBeCloseTo(budgetOf().merge / 4, 12);
    expect(finer(budgetOf(), 0.3)).toEqual(budgetOf());
  });
});
