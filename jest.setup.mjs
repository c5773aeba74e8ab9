import fc from 'fast-check';
import { isDeepStrictEqual } from 'node:util';

// In CI properties are tried on the same values each time; elsewhere every run looks at others.
if (process.env.CI) fc.configureGlobal({ seed: 20261125 });

/**
 * Values are held against others by the million in the tests of geometry, and making a whole set of matchers for each took a
 * sixth of the run. Here those that hold pass at once; whatever does not is handed to the full `expect`, which says what is
 * wrong.
 */
const full = globalThis.expect;
class Plain {
  constructor(value) {
    this.value = value;
  }
  get not() {
    return full(this.value).not;
  }
  get resolves() {
    return full(this.value).resolves;
  }
  get rejects() {
    return full(this.value).rejects;
  }
}
const numbers = (a, b) => typeof a === 'number' && typeof b === 'number';
const holds = {
  toBe: (a, b) => Object.is(a, b),
  // Stricter than either, and many times as fast over long columns of numbers.
  toEqual: isDeepStrictEqual,
  toStrictEqual: isDeepStrictEqual,
  toBeCloseTo: (a, b) => numbers(a, b) && Math.abs(a - b) < 0.005,
  toBeLessThan: (a, b) => numbers(a, b) && a < b,
  toBeLessThanOrEqual: (a, b) => numbers(a, b) && a <= b,
  toBeGreaterThan: (a, b) => numbers(a, b) && a > b,
  toBeGreaterThanOrEqual: (a, b) => numbers(a, b) && a >= b,
};
for (const name of Object.keys(full(0)).filter((key) => typeof full(0)[key] === 'function')) {
  const test = holds[name];
  Plain.prototype[name] = function says(...wanted) {
    if (test && wanted.length === 1 && test(this.value, wanted[0])) return;
    try {
      full(this.value)[name](...wanted);
    } catch (e) {
      Error.captureStackTrace(e, says); // it is shown where the test says it, not here
      throw e;
    }
  };
}
globalThis.expect = Object.assign(
  (value, ...more) => (more.length === 0 ? new Plain(value) : full(value, ...more)),
  full,
);
