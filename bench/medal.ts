/**
 * A relief of 100 x 100 mm finished in rows 0.1 mm apart by a tapered ball of 0.3 mm, in the built application: `npm run
 * bench:interface -- relief`. How long it takes until it is proven and seen, and how long when one ornament in a corner changes.
 */
import type { Page } from 'puppeteer-core';
import type { Maker } from '../e2e/maker';
import { forgetTasks, longTasks, sinceKey, watchProofs } from './page';

/** From the open job on the shelf. */
export async function medal(page: Page, maker: Maker): Promise<void> {
  await forgetTasks(page);
  const began = performance.now();
  await maker.press('Open Medal');
  await maker.proven(600_000);
  const took = performance.now() - began;
  const blocked = Math.max(0, ...(await longTasks(page)));
  console.log(
    `| a relief of 100 x 100 mm finished at 0.1 mm by a tapered ball of 0.3 mm: from its opening until it is proven | ${(took / 1000).toFixed(1)} s | longest block of the page ${blocked.toFixed(0)} ms |`,
  );
  await maker.stage('Relief');
  await watchProofs(page);
  const times: number[] = [];
  for (const digit of ['5', '6', '7', '8', '9', '8', '7', '6', '5']) {
    await maker.fill('Rise', `2.${digit}`);
    times.push(await sinceKey(page));
  }
  console.log(
    `| an ornament in its corner changed, until all is proven again | ${(times.slice(1).sort((a, b) => a - b)[4] / 1000).toFixed(2)} s | ${times.map((t) => (t / 1000).toFixed(2)).join(', ')} s |`,
  );
}
