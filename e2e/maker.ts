import type { ElementHandle, Page } from 'puppeteer-core';

/** How long a maker waits for a thing to come, ms; on a device that is made slow, so much longer. */
export const PATIENCE = 90000 * Math.max(1, Number(process.env.MIRVAK_SLOW ?? 1) / 2);

/** How often a maker looks whether something has come, ms: looking at every frame would take the page's own time for drawing it. */
const polling = 60;

/** How a thing is called in vain that something lies over, or that does not come to rest, for as long as anybody waits. */
const NEVER_FREE = 'It never came free';

/** In the page: whether what has the focus has an accessible name. */
const named = (name: string): boolean => {
  const e = document.activeElement;
  const label = e?.id ? document.querySelector(`label[for="${CSS.escape(e.id)}"]`)?.textContent : null;
  return (e?.getAttribute('aria-label') ?? label ?? e?.textContent ?? '').trim() === name;
};

/** What a maker does, by what is on the screen: names of buttons and fields, places on the table. */
export class Maker {
  constructor(readonly page: Page) {}

  /** The visible thing with a role and an accessible name: its label, or else what is written on it. */
  async find(role: string, name: string | RegExp, timeout = PATIENCE): Promise<ElementHandle<Element>> {
    const handle = await this.page
      .waitForFunction(
        (r: string, source: string) => {
          const tags: Record<string, string> = {
            button: 'button,[role=button]',
            textbox: 'input:not([type=checkbox]):not([type=file]),textarea',
            listitem: 'li',
            checkbox: 'input[type=checkbox]',
          };
          const wanted = new RegExp(source);
          return [...document.querySelectorAll<HTMLElement>(tags[r] ?? `[role=${r}]`)].find((e) => {
            const label =
              (e as HTMLInputElement).labels?.[0]?.textContent ??
              (e.id ? document.querySelector(`label[for="${CSS.escape(e.id)}"]`)?.textContent : null);
            const box = e.getBoundingClientRect();
            const names = [e.getAttribute('aria-label') ?? label ?? e.textContent ?? ''];
            // Of a row or card a maker reads the first line.
            if (!e.hasAttribute('aria-label') && !label) names.push(e.innerText.split('\n')[0]);
            return (
              box.width > 0 &&
              box.height > 0 &&
              !e.closest('[aria-hidden=true]') &&
              names.some((n) => wanted.test(n.trim()))
            );
          });
        },
        { timeout, polling },
        role,
        typeof name === 'string' ? `^${name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}$` : name.source,
      )
      .catch(async (e) => {
        throw new Error(
          `${(e as Error).message} There is no ${role} "${name}". The page at ${this.page.url()} says: ${(await this.text()).slice(0, 1500)}`,
        );
      });
    return handle.asElement() as ElementHandle<Element>;
  }
  /** Presses a thing; who misses it, because the sheet moved under the hand on a busy device, presses again. */
  async press(name: string | RegExp, role = 'button'): Promise<void> {
    const misses: string[] = [];
    for (let tries = 0; tries < 3; tries++) {
      const thing = await this.find(role, name).catch((e: Error) => {
        throw misses.length ? new Error(`After a press that missed (${misses.join('; ')}): ${e.message}`) : e;
      });
      try {
        await this.free(thing);
        // A list that is made anew just now has another thing of that name in the same place: it was met too, and is not pressed twice.
        await thing.evaluate((e) => {
          const named = (q: Element) =>
            `${q.tagName} ${q.getAttribute('role')} ${q.getAttribute('aria-label') ?? q.textContent}`;
          const wanted = named(e);
          const press = e as unknown as { met: boolean; instead: string };
          press.instead = 'nothing was hit';
          document.addEventListener(
            'click',
            (event) => {
              press.met = event.composedPath().some((q) => q === e || (q instanceof Element && named(q) === wanted));
              press.instead = `${named(event.target as Element).slice(0, 80)} was hit at ${event.clientX}, ${event.clientY}`;
            },
            { capture: true, once: true },
          );
        });
        await thing.click();
      } catch (e) {
        // A sheet that has been made anew meanwhile has another thing of that name; what is gone was not pressed.
        const { message } = e as Error;
        if (tries === 2 || message.startsWith(NEVER_FREE) || !/detached|exceeded|not clickable/.test(message)) throw e;
        continue;
      }
      // A page that was left at the press takes the answer along: it was met.
      const missed = await thing
        .evaluate((e) => {
          const { met, instead } = e as unknown as { met?: boolean; instead: string };
          const { x, y, width, height } = e.getBoundingClientRect();
          return met ? '' : `${instead}, and it lies at ${x}, ${y} and is ${width} by ${height}`;
        })
        .catch(() => '');
      if (!missed) return;
      misses.push(missed);
    }
    throw new Error(`"${name}" could not be met in three presses: ${misses.join('; ')}.`);
  }
  /**
   * A maker waits until nothing lies over a thing any more, such as a menu that is closing, and it stands still. A menu or
   * drawer that is still coming in may stand still for some frames on a busy device: it is there when it is opaque and in place.
   */
  private async free(thing: ElementHandle<Element>): Promise<void> {
    await thing.scrollIntoView();
    const found = await this.page
      .waitForFunction(
        (e) => {
          // Of a sheet that has been made anew meanwhile: it is looked for again at once.
          if (!e.isConnected) return 'gone';
          // What is grey cannot be pressed yet.
          if ((e as HTMLButtonElement).disabled || e.closest('[inert]')) return false;
          const b = e.getBoundingClientRect();
          const top = document.elementFromPoint(b.x + b.width / 2, b.y + b.height / 2);
          // A sheet that grew above it has pushed it out of sight again.
          if (!top) e.scrollIntoView({ block: 'center', behavior: 'instant' });
          const was = (e as unknown as { lastSeen?: string }).lastSeen;
          const now = `${b.x} ${b.y}`;
          (e as unknown as { lastSeen?: string }).lastSeen = now;
          const sheet = e.closest('.MuiPopover-paper, .MuiDrawer-paper');
          if (sheet) {
            const { opacity, transform } = getComputedStyle(sheet);
            if (opacity !== '1' || (transform !== 'none' && transform !== 'matrix(1, 0, 0, 1, 0, 0)')) return false;
          }
          return top !== null && (e.contains(top) || top.contains(e)) && was === now;
        },
        // Not at every frame: a window that draws none just now would be waited for without end.
        { timeout: PATIENCE, polling },
        thing,
      )
      .catch(async (e: Error) => {
        throw new Error(`${NEVER_FREE}: ${e.message} Over it lies ${await this.over(thing)}.`);
      });
    if ((await found.jsonValue()) === 'gone') throw new Error('detached');
  }
  /** What lies over the middle of a thing. */
  private over(thing: ElementHandle<Element>): Promise<string> {
    return thing
      .evaluate((e) => {
        const b = e.getBoundingClientRect();
        const top = document.elementFromPoint(b.x + b.width / 2, b.y + b.height / 2);
        return `${top?.outerHTML.slice(0, 200)}, and it is ${e.outerHTML.slice(0, 200)}`;
      })
      .catch(() => 'nothing: it is gone');
  }
  /** Types into the field with a label and leaves it with Enter. */
  async fill(label: string, text: string, enter = true): Promise<void> {
    // A sheet that is made anew meanwhile has another field of that name: it is found again, and who sees that the words went
    // nowhere types them there.
    for (let tries = 0; ; tries++) {
      try {
        const field = await this.find('textbox', label);
        await this.free(field);
        await field.click();
        await this.page.keyboard.down('Control');
        await this.page.keyboard.press('KeyA');
        await this.page.keyboard.up('Control');
        await this.page.keyboard.type(text);
        if (!text || (await field.evaluate((e, t) => e.isConnected && (e as HTMLInputElement).value === t, text)))
          break;
        if (tries === 2) throw new Error(`"${label}" does not take "${text}".`);
      } catch (e) {
        // Pushed out of sight by a sheet that grew above it, it is looked for again: nothing was typed yet.
        if (tries === 2 || !/detached|not clickable/.test((e as Error).message)) throw e;
      }
    }
    if (enter) await this.page.keyboard.press('Enter');
  }
  /** Waits until what has the focus is called so: its label, or what is written on it. */
  async focused(name: string): Promise<void> {
    await this.page.waitForFunction(named, { timeout: PATIENCE }, name);
  }
  /** Goes on with Tab until what has the focus is called so; says how many keys that took. */
  async tabTo(name: string, most = 8): Promise<number> {
    for (let i = 0; ; i++) {
      if (await this.page.evaluate(named, name)) return i;
      if (i === most) throw new Error(`"${name}" is not within ${most} tabs.`);
      await this.page.keyboard.press('Tab');
    }
  }
  async valueOf(label: string): Promise<string> {
    return (await this.find('textbox', label)).evaluate((e) => (e as HTMLInputElement).value);
  }
  /** Waits until a field shows a value. */
  async holds(label: string, value: string): Promise<void> {
    // A sheet that is made anew meanwhile has another field of that name: it is found again.
    const until = Date.now() + PATIENCE;
    while ((await this.valueOf(label)) !== value) {
      if (Date.now() > until) throw new Error(`"${label}" shows "${await this.valueOf(label)}", not "${value}".`);
      await new Promise((r) => setTimeout(r, 50));
    }
  }
  /** What is read once it stands still: twice the same. */
  async rests<T>(read: () => Promise<T>, between = 120): Promise<T> {
    const until = Date.now() + PATIENCE;
    for (let last = await read(); ;) {
      await new Promise((r) => setTimeout(r, between));
      const now = await read();
      if (JSON.stringify(now) === JSON.stringify(last)) return now;
      if (Date.now() > until)
        throw new Error(`It does not come to rest: ${JSON.stringify(last)}, ${JSON.stringify(now)}.`);
      last = now;
    }
  }
  /** The number in a field once it has come to rest. */
  restsAt(label: string): Promise<number> {
    return this.rests(async () => Number(await this.valueOf(label)), 250);
  }
  /** Looks until something is so. */
  async until(so: () => Promise<boolean>, what: string, patience = PATIENCE): Promise<void> {
    for (const end = Date.now() + patience; !(await so()); await new Promise((r) => setTimeout(r, 60)))
      if (Date.now() > end) throw new Error(`In vain: ${what}.`);
  }
  /** Waits until a field shows a number that is meant. */
  async shows(label: string, meant: (v: number) => boolean): Promise<void> {
    let v = '';
    await this.until(
      async () => (v = await this.valueOf(label)) !== '' && meant(Number(v)),
      `"${label}" shows what is meant`,
    ).catch((e) => {
      throw new Error(`${(e as Error).message} It shows "${v}".`);
    });
  }
  /** Chooses from a drop-down. */
  async choose(label: string, option: string): Promise<void> {
    // A sheet that has just been changed may still show the field of the sheet before: it is found anew until it is met.
    for (let tries = 0; ; tries++) {
      const box = (
        await this.page.waitForFunction(
          (l: string) => {
            const id = [...document.querySelectorAll('label')].find((e) => e.textContent === l)?.htmlFor;
            return id && document.getElementById(id)?.closest('.MuiInputBase-root')?.querySelector('[role=combobox]');
          },
          { timeout: PATIENCE },
          label,
        )
      ).asElement() as ElementHandle<Element>;
      try {
        await this.free(box);
        await box.click();
        // A sheet that grows under the pointer is missed, and a list goes with the sheet it was opened from when that is made anew:
        // whoever sees no list presses again.
        await this.page.waitForFunction(
          (b: Element) => b.getAttribute('aria-expanded') === 'true',
          { timeout: 5000 },
          box,
        );
        const listed = await this.page.waitForFunction(
          (b: Element) => (b.isConnected ? document.querySelector('[role=listbox] [role=option]') !== null : 'gone'),
          { timeout: PATIENCE },
          box,
        );
        if ((await listed.jsonValue()) === 'gone') throw new Error('The sheet was made anew while its list opened.');
        // It may go before it is pressed, too.
        if (tries < 2) await this.find('option', option, 5000);
        await this.press(option, 'option');
        return;
      } catch (e) {
        if (tries === 2 || (e as Error).message.startsWith(NEVER_FREE)) throw e;
      }
    }
  }
  async sees(text: string | RegExp, timeout = PATIENCE): Promise<void> {
    const source = typeof text === 'string' ? text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&') : text.source;
    await this.page
      .waitForFunction((s: string) => new RegExp(s).test(document.body.innerText), { timeout, polling }, source)
      .catch(async (e) => {
        throw new Error(
          `${(e as Error).message} "${source}" is not seen. The page at ${this.page.url()} says: ${(await this.text()).slice(0, 1500)}`,
        );
      });
  }
  /** What is written on the page. A page that hangs says that it does, so that a test that failed can end. */
  async text(): Promise<string> {
    const hangs = new Promise<string>((r) => void setTimeout(r, 20000, '(the page does not answer)').unref());
    return Promise.race([this.page.evaluate(() => document.body.innerText), hangs]);
  }
  async stage(name: string): Promise<void> {
    await this.press(new RegExp(`^${name}, `));
  }
  /** Waits until everything has been worked out and proven. */
  async proven(timeout = 2 * PATIENCE): Promise<void> {
    await this.page.waitForFunction(
      () => {
        const states = [...document.querySelectorAll('nav[aria-label=Stages] button')].map(
          (b) => b.getAttribute('aria-label') ?? '',
        );
        return states.some((s) => /^Run, (ready|needs)/.test(s)) && states.every((s) => !s.includes('working'));
      },
      { timeout, polling },
    );
  }
  async saved(): Promise<void> {
    await this.sees('Saved on this device');
  }
  async chord(...keys: string[]): Promise<void> {
    for (const k of keys.slice(0, -1)) await this.page.keyboard.down(k as never);
    await this.page.keyboard.press(keys[keys.length - 1] as never);
    for (const k of keys.slice(0, -1).reverse()) await this.page.keyboard.up(k as never);
  }
  /** Drags a thing on the table by pixels. */
  async drag(role: string, name: string | RegExp, dx: number, dy: number): Promise<void> {
    // On a busy device what was changed just now is not where it will be.
    const thing = await this.find(role, name);
    const b = await this.rests(async () => (await thing.boundingBox())!);
    const x = b.x + b.width / 2;
    const y = b.y + b.height / 2;
    await this.page.mouse.move(x, y);
    await this.page.mouse.down();
    // The last steps are none: a hand comes to rest before it lets go.
    for (let i = 1; i <= 12; i++) {
      const part = Math.min(1, i / 6);
      await this.page.mouse.move(x + dx * part, y + dy * part);
      // A hand is no quicker than the picture: the page sees each step.
      await this.page.evaluate(() => new Promise((r) => requestAnimationFrame(() => r(null))));
    }
    await this.page.mouse.up();
  }
}
