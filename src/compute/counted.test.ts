import { holdBallast } from './ballast';
import { counted } from './counted';

const MB = 2 ** 20;
const Real = ArrayBuffer;
/** What is asked of the browser for arrays meanwhile, MB each. */
function asked(work: () => void): number[] {
  const sizes: number[] = [];
  globalThis.ArrayBuffer = class extends Real {
    constructor(bytes: number) {
      super(bytes);
      sizes.push(bytes / MB);
    }
  } as typeof ArrayBuffer;
  try {
    work();
  } finally {
    globalThis.ArrayBuffer = Real;
  }
  return sizes;
}

describe('what the collector counts', () => {
  it('is shared memory too, once for each view', () => {
    const [a, b] = [3, 5].map((size) => new Float32Array(new SharedArrayBuffer(size * MB)));
    expect(asked(() => counted(a))).toEqual([3]);
    expect(asked(() => counted(a))).toEqual([]);
    expect(asked(() => counted(b))).toEqual([5]);
  });
  it('is the own memory of a window as it is', () => {
    expect(asked(() => counted(new Float32Array(2 * MB)))).toEqual([]);
  });
  it('is a ballast that workers share out among them, each its own once', () => {
    expect(asked(() => holdBallast(4))).toEqual([128]);
    expect(asked(() => holdBallast(4, 1000))).toEqual([]);
  });
  it('is no ballast while many moves are worked on', () => {
    expect(asked(() => holdBallast(4, 2e6))).toEqual([]);
    expect(globalThis).not.toHaveProperty('ballast');
    expect(asked(() => holdBallast(16, 1000))).toEqual([32]);
  });
  it('is nothing where there is no room for it, and the work goes on', () => {
    holdBallast(2, 2e6);
    const none = class {
      constructor() {
        throw new RangeError('Array buffer allocation failed');
      }
    };
    globalThis.ArrayBuffer = none as unknown as typeof ArrayBuffer;
    try {
      expect(() => holdBallast(2)).not.toThrow();
      expect(() => counted(new Float32Array(new SharedArrayBuffer(MB)))).not.toThrow();
    } finally {
      globalThis.ArrayBuffer = Real;
    }
    expect(globalThis).not.toHaveProperty('ballast');
  });
});
