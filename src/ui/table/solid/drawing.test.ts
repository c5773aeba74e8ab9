import { leaveDrawing, noteDrawing, useSolidDrawing } from './drawing';

const said = () => useSolidDrawing.getState().drawing;
/** A picture that is drawn when it is asked to be, or fails. */
function picture() {
  let drawn!: () => void;
  let lost!: () => void;
  const promise = new Promise<void>((yes, no) => ([drawn, lost] = [yes, no]));
  noteDrawing(promise);
  return { drawn, lost };
}
const later = (ms: number) => jest.advanceTimersByTimeAsync(ms);

describe('that the solid is being drawn', () => {
  beforeEach(() => void jest.useFakeTimers());
  afterEach(() => {
    leaveDrawing();
    jest.useRealTimers();
  });

  it('is said when it takes a while, and until it is drawn', async () => {
    const p = picture();
    await later(200);
    expect(said()).toBe(false);
    await later(5000);
    expect(said()).toBe(true);
    p.drawn();
    await later(0);
    expect(said()).toBe(false);
  });

  it('is not said of what is drawn at once', async () => {
    picture().drawn();
    await later(5000);
    expect(said()).toBe(false);
  });

  it('is said until the last that was given is drawn, whichever is drawn first', async () => {
    const [first, last] = [picture(), picture()];
    await later(400);
    first.drawn();
    await later(0);
    expect(said()).toBe(true);
    last.lost();
    await later(0);
    expect(said()).toBe(false);
  });

  it('is said no more when what drew is gone', async () => {
    const p = picture();
    await later(400);
    expect(said()).toBe(true);
    leaveDrawing();
    expect(said()).toBe(false);
    // Nothing that it was to say comes later.
    picture();
    leaveDrawing();
    p.drawn();
    await later(5000);
    expect(said()).toBe(false);
  });
});
