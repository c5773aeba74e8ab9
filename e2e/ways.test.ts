import { drawn, emptyBoard, planOf } from './board';
import { eachOnAFreshDevice } from './device';

describe('with the plan alone', () => {
  const device = eachOnAFreshDevice();

  test('(long) letters go round the circle that is picked, and change sides by one press', async () => {
    const { maker } = device;
    await emptyBoard(maker);
    await maker.press('Ellipse');
    await maker.focused('Width');
    await maker.fill('Width', '60');
    await maker.fill('Height', '60');
    await maker.holds('Height', '60');
    await maker.press('Lettering');
    await maker.focused('Text');
    await maker.fill('Text', 'FERRY', false);
    // Outside at the top: the baseline is larger than the circle, and its middle is at 90 degrees.
    await maker.holds('Middle at', '90');
    expect(Number(await maker.valueOf('Radius of the baseline'))).toBeGreaterThan(30);
    await maker.press('Inside');
    await maker.page.waitForFunction(() =>
      [...document.querySelectorAll('label')].some(
        (l) =>
          l.textContent === 'Radius of the baseline' &&
          Number((document.getElementById(l.htmlFor) as HTMLInputElement).value) < 30,
      ),
    );
    await maker.press('At the bottom');
    await maker.holds('Middle at', '270');
    expect(Number(await maker.valueOf('Radius of the baseline'))).toBeLessThan(30);
    const cap = Number(await maker.valueOf('Cap height'));
    // The oval was only picked by chance: straight, and as large as it goes into it.
    await maker.press('In the middle');
    await maker.sees('Fit into a box');
    expect(Number(await maker.valueOf('Cap height'))).toBeGreaterThan(cap);
    await maker.press('At the top');
    await maker.holds('Middle at', '90');
    expect(Number(await maker.valueOf('Cap height'))).toBeLessThanOrEqual(cap);
  });

  test('a frame is not picked by its inside; boxes take or touch; what lies within is picked; what lies off the blank is said', async () => {
    const { maker } = device;
    const { mouse } = maker.page;
    await emptyBoard(maker);
    const at = await planOf(maker);
    await maker.press('Rectangle');
    await maker.focused('Width');
    await maker.press('Star');
    await maker.sees('2 items');
    await drawn(maker);
    await maker.page.keyboard.press('Escape');
    const picked = () =>
      maker.page.$$eval('[aria-label=Items] [aria-selected=true]', (l) =>
        l.map((e) => (e as HTMLElement).innerText.split('\n')[0]),
      );
    const star = (await (await maker.find('treeitem', /^Star/)).boundingBox())!;
    expect(star.width).toBeGreaterThan(0);
    // Between frame and star: nothing is there.
    await mouse.click(...at(0.25, 0.5));
    await maker.page.waitForFunction(() => !document.querySelector('[aria-label=Items] [aria-selected=true]'));
    const drag = async (from: [number, number], to: [number, number]) => {
      await mouse.move(...at(...from));
      await mouse.down();
      await mouse.move(...at(...to), { steps: 6 });
      await mouse.up();
    };
    // From inside the frame to the right: only the star lies wholly in the box.
    await drag([0.3, 0.2], [0.75, 0.85]);
    await maker.page.waitForFunction(
      () => document.querySelectorAll('[aria-label=Items] [aria-selected=true]').length === 1,
    );
    expect(await picked()).toEqual(['Star']);
    // To the left over the frame's right edge: what it touches.
    await drag([0.97, 0.4], [0.75, 0.6]);
    await maker.page.waitForFunction(() =>
      document.querySelector('[aria-label=Items] [aria-selected=true]')?.textContent?.startsWith('Rectangle'),
    );
    expect(await picked()).toEqual(['Rectangle']);
    await maker.page.focus('[role=application]');
    await maker.page.keyboard.press('w');
    await maker.page.waitForFunction(() =>
      document.querySelector('[aria-label=Items] [aria-selected=true]')?.textContent?.startsWith('Star'),
    );
    await maker.fill('Centre X', '900');
    await maker.sees('1 thing lies off the blank');
  });
});

describe('with the solid', () => {
  const device = eachOnAFreshDevice({ solid: true });

  test('(long) the second button opens what can be done on rows, cards, solid and section; undo goes on after a reload', async () => {
    const { maker } = device;
    const { mouse } = maker.page;
    const second = async (selector: string) => {
      // The menu before is still over the window while it goes.
      await maker.page.waitForFunction(() => !document.querySelector('.MuiPopover-root'));
      const b = (await (await maker.page.waitForSelector(selector))!.boundingBox())!;
      await mouse.click(b.x + b.width / 2, b.y + b.height / 2, { button: 'right' });
    };
    await emptyBoard(maker);
    await maker.press('Rectangle');
    await maker.focused('Width');
    await second('[aria-label=Items] [role=treeitem]');
    await maker.press(/^Cut this as/, 'menuitem');
    await maker.press(/^Profile/, 'menuitem');
    await maker.sees('"Profile" is in the cut plan');
    await maker.press('Open it');
    await maker.find('button', /^Cut 1: Profile/);
    await second('[aria-label="Cut plan"] li');
    await maker.press('Copy', 'menuitem');
    await maker.find('button', /^Cut 2: /);
    await second('section[aria-label=Section]');
    await maker.press(/^Lay the section upright/, 'menuitem');
    await second('[aria-label="The blank in the round"]');
    await maker.press(/^Look at the solid from the top/, 'menuitem');
    await maker.saved();

    await maker.page.reload();
    await maker.find('button', /^Cut 2: /);
    for (const left of [1, 0]) {
      await maker.press('Undo');
      await maker.page.waitForFunction(
        (n: number) => document.querySelectorAll('[aria-label="Cut plan"] > li').length === n,
        {},
        left,
      );
    }
    await maker.press('Undo');
    await maker.stage('Artwork');
    await maker.sees('Nothing drawn yet');
    for (let i = 0; i < 3; i++) await maker.press('Redo');
    await maker.stage('Cuts');
    await maker.find('button', /^Cut 2: /);
  });
});
