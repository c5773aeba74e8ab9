import type { Page } from 'puppeteer-core';
import type { Maker } from './maker';

/** Lets a file fall on the plan, as from a folder of the desktop. */
export async function drop(page: Page, name: string, type: string, content: string, base64 = false): Promise<void> {
  await page.waitForSelector('[aria-label="Plan of the blank"] canvas');
  await page.evaluate(
    (n, t, c, coded) => {
      const data = new DataTransfer();
      data.items.add(new File([coded ? Uint8Array.from(atob(c), (q) => q.charCodeAt(0)) : c], n, { type: t }));
      const plan = document.querySelector('[aria-label="Plan of the blank"]')!;
      for (const kind of ['dragover', 'drop']) plan.dispatchEvent(new DragEvent(kind, { dataTransfer: data, bubbles: true, cancelable: true }));
    },
    name,
    type,
    content,
    base64,
  );
}

/** Waits until everything lies on the plan. */
export const drawn = (maker: Maker) => maker.page.waitForSelector('[aria-label="Plan of the blank"][aria-busy=false]');

/** Places on the plan by share of its width and height. */
export async function planOf(maker: Maker): Promise<(x: number, y: number) => [number, number]> {
  await drawn(maker);
  const b = (await (await maker.page.waitForSelector('[aria-label="Plan of the blank"] canvas'))!.boundingBox())!;
  return (x, y) => [b.x + b.width * x, b.y + b.height * y];
}

export async function emptyBoard(maker: Maker): Promise<void> {
  await maker.press('New job');
  await maker.sees('Piece of material');
  await maker.stage('Artwork');
  await maker.sees('Nothing drawn yet');
  await planOf(maker);
  // The view fits itself to the blank once it has its size.
  await new Promise((r) => setTimeout(r, 700));
}
