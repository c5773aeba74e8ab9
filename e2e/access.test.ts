import { readFileSync } from 'node:fs';
import { eachOnAFreshDevice } from './device';
import type { Maker } from './maker';

const axe = readFileSync('node_modules/axe-core/axe.min.js', 'utf8');

/** What breaks the rules of WCAG 2.2 A and AA, and of good practice, in the window as it is: rule and element; of some rules only, where they are named. */
async function violations(maker: Maker, menu = false, only?: readonly string[]): Promise<string[]> {
  if (!(await maker.page.evaluate(() => 'axe' in window))) await maker.page.evaluate(axe);
  // What is coming in or going out is half clear, and has no colours yet.
  await maker.page.evaluate(() =>
    Promise.all(
      document
        .getAnimations()
        .filter((a) => a.effect?.getComputedTiming().endTime !== Infinity)
        .map((a) => a.finished.catch(() => null)),
    ),
  );
  return maker.page.evaluate(
    async (inMenu, rules) => {
      const { axe } = window as unknown as {
        axe: {
          run(
            context: unknown,
            o: unknown,
          ): Promise<{ violations: { id: string; nodes: { html: string; failureSummary?: string }[] }[] }>;
        };
      };
      // An open menu belongs to no landmark; nor does a tooltip of what the pointer was left on.
      const r = await axe.run(
        { exclude: [['[role=tooltip]']] },
        { resultTypes: ['violations'], ...(rules ? { runOnly: rules } : { rules: { region: { enabled: !inMenu } } }) },
      );
      return r.violations.flatMap((v) =>
        v.nodes
          .slice(0, 4)
          .map(
            (n) =>
              `${v.id}: ${n.html.slice(0, 160)} ${(n.failureSummary ?? '').split('\n').slice(1, 2).join('').trim().slice(0, 160)}`,
          ),
      );
    },
    menu,
    only,
  );
}

/** Goes through every view. */
async function everyView(maker: Maker, mode: 'light' | 'dark'): Promise<void> {
  const wrong: Record<string, string[]> = {};
  const COLOURS = ['color-contrast', 'link-in-text-block'];
  // The dark has other colours, and nothing else that is other.
  const at = async (view: string, menu = false, only = mode === 'dark' ? COLOURS : undefined) => {
    const found = await violations(maker, menu, only);
    if (found.length) wrong[view] = found;
  };
  if (mode === 'light') await at('shelf');
  await maker.press('Open Sluice gear plate');
  if (mode === 'dark') await maker.press('Dark colours');
  await maker.proven();
  await maker.press(/^Cut 1: /);
  await at('cuts');
  await maker.press('Add a cut');
  await maker.find('menuitem', /^V-carve/);
  await at('list of cuts', true);
  await maker.page.keyboard.press('Escape');
  await maker.press('More for Arrow');
  await maker.press('Switch off', 'menuitem');
  await maker.sees('switched off');
  await at('a cut switched off', false, COLOURS);
  await maker.chord('Control', 'z');
  for (const stage of ['Blank', 'Artwork', 'Relief', 'Proof', 'Run']) {
    await maker.stage(stage);
    await maker.page.waitForFunction(
      (s: string) => document.querySelector('[aria-label=Sheet] h2')?.textContent === s,
      {},
      stage,
    );
    await at(stage);
    if (stage === 'Run') {
      await maker.press(/^12/, 'option');
      await at('program text', false, COLOURS);
    }
    if (stage === 'Artwork') {
      await maker.press(/^Hide /);
      await maker.find('button', /^Show /);
      await at('a thing hidden', false, COLOURS);
    }
  }
  await maker.stage('Relief');
  await maker.press('Swept');
  await maker.find('button', 'Relief, ready');
  await maker.sees('Outlines of the relief');
  await at('relief with a form');
  await maker.press(/^Leave out /);
  await maker.find('button', /^Take in /);
  await at('a form left out', false, COLOURS);
  await maker.press(/^Unit: mm/);
  await maker.sees('Programs are still written in millimetres');
  await at('notice');
  await maker.press(/^Unit: in/);
  await maker.stage('Artwork');
  await maker.press('Lettering');
  await maker.sees('Cap height');
  await at('lettering');
  await maker.page.keyboard.press('Escape');
  await maker.press('Tool library');
  await maker.find('button', 'Drag the group Drills');
  await at('tool library');
  await maker.page.keyboard.press('Escape');
  await maker.chord('Control', 'k');
  await maker.find('textbox', /./);
  await at('list of actions');
  await maker.page.keyboard.press('Escape');
  await maker.press('Job shelf');
  await maker.sees('Lock cottage board');
  await at('shelf, come back to');
  await maker.press('Safekeeping');
  await maker.sees(/Mirvak uses/);
  await at('safekeeping');
  expect(wrong).toEqual({});
}

describe('with the solid', () => {
  const device = eachOnAFreshDevice({ solid: true });

  test('(long) no view breaks a rule of access in the dark', () => everyView(device.maker, 'dark'));
});

describe('with the plan alone', () => {
  const device = eachOnAFreshDevice();

  test('no view breaks a rule of access in the light', () => everyView(device.maker, 'light'));

  test('held upright and touched: nothing scrolls sideways, and what is touched is 44 pixels large', async () => {
    const { maker } = device;
    await maker.page.setViewport({ width: 820, height: 1180, hasTouch: true, isMobile: true });
    await maker.page.reload();
    await maker.press('Open Sluice gear plate');
    const wrong: string[] = [];
    for (const stage of ['Blank', 'Artwork', 'Cuts', 'Proof', 'Run']) {
      await maker.stage(stage);
      await maker.page.waitForFunction(
        (s: string) => document.querySelector('[aria-label=Sheet] h2')?.textContent === s,
        {},
        stage,
      );
      // A long one is as wide as the plan: its ends come beside the tools.
      if (stage === 'Blank') await maker.fill('Height (Y)', '45');
      if (stage === 'Artwork') {
        await maker.press(/./, 'treeitem');
        await maker.find('button', 'Scale by the upper right corner');
      }
      wrong.push(
        ...(await maker.page.evaluate((at: string) => {
          const small = [
            ...document.querySelectorAll<HTMLElement>(
              'button, [role=button], [role=treeitem], [role=radio], [role=combobox], input:not([type=hidden])',
            ),
          ].filter((e) => {
            const whole =
              e.closest('.MuiFormControlLabel-root, .MuiSlider-root') ?? e.closest('.MuiInputBase-root') ?? e;
            const b = whole.getBoundingClientRect();
            // Links in a line of text are as high as the text.
            if (
              !b.width ||
              !b.height ||
              e.classList.contains('MuiLink-root') ||
              e.closest('[aria-hidden=true]') ||
              getComputedStyle(e).visibility === 'hidden'
            )
              return false;
            return Math.min(b.width, b.height) < 43.5;
          });
          const out = small.map(
            (e) =>
              `${at}: ${e.getAttribute('aria-label') ?? e.textContent} ${JSON.stringify(e.getBoundingClientRect())}`,
          );
          const plan = document.querySelector('[aria-label="Plan of the blank"]')!;
          const seen = plan.getBoundingClientRect();
          for (const e of plan.querySelectorAll('svg [role=button]')) {
            const b = e.getBoundingClientRect();
            const [x, y] = [(b.left + b.right) / 2, (b.top + b.bottom) / 2];
            if (x < seen.left || x > seen.right || y < seen.top || y > seen.bottom) continue;
            if (!e.contains(document.elementFromPoint(x, y)))
              out.push(`${at}: ${e.getAttribute('aria-label')} lies under something else`);
          }
          if (document.documentElement.scrollWidth > innerWidth)
            out.push(`${at} scrolls sideways: ${document.documentElement.scrollWidth}`);
          return out;
        }, stage)),
      );
    }
    expect(wrong).toEqual([]);
  });
});
