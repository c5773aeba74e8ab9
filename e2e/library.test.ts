import { readFileSync } from 'node:fs';
import { eachOnAFreshDevice } from './device';

const device = eachOnAFreshDevice();

test('(long) a changed cutter is kept by the library and offered to the job, which keeps its own until it is taken', async () => {
  const { maker } = device;
  await maker.press('Open Lock cottage board');
  await maker.proven();
  await maker.press('Tool library');
  await maker.fill('Search the cutters', 'v-bit', false);
  await maker.press(/^V-bit 60\u00b0 12 mm/);
  await maker.sees('This job uses the cutter');
  await maker.fill('Feed', '950');
  await maker.press('Use it so in this job');
  await maker.press('Close the tool library');
  await maker.page.waitForFunction(() => !document.querySelector('[role=dialog]'));
  await maker.press('Undo');
  await maker.press('Tool library');
  await maker.press(/^V-bit 60\u00b0 12 mm/);
  await maker.holds('Feed', '950');
  await maker.sees('Use it so in this job');
});

test('(long) an impossible cutter is explained and not kept', async () => {
  const { maker } = device;
  await maker.press('Open Lock cottage board');
  await maker.press('Tool library');
  await maker.press(/^V-bit 60\u00b0 12 mm/);
  await maker.fill('Included angle', '200');
  await maker.sees(/At most/);
  await maker.page.keyboard.press('Escape');
  await maker.holds('Included angle', '60');
});

test('(long) a full device says what to do, and nothing is lost', async () => {
  const { maker } = device;
  await maker.press('Open Sluice gear plate');
  await maker.saved();
  const cdp = await maker.page.createCDPSession();
  const origin = new URL(maker.page.url()).origin;
  await cdp.send('Storage.overrideQuotaForOrigin', { origin, quotaSize: 1 });
  await maker.stage('Blank');
  // The browser asks for what is left only every half minute: until then there is room.
  for (let i = 0; !/This device has no room left/.test(await maker.text()); i++) {
    if (i === 100) throw new Error('A full device says nothing.');
    await maker.fill('Thickness (Z)', i % 2 ? '2.6' : '2.7');
    await maker.until(async () => /Saved on|no room/.test(await maker.text()), 'it is saved, or said that it is not');
  }
  await maker.fill('Thickness (Z)', '2.5');
  await maker.sees('Export to a file');
  await maker.press('Export to a file');
  expect(await device.downloaded(/^sluice-gear-plate.*\.mirvak$/)).toBeTruthy();
  await cdp.send('Storage.overrideQuotaForOrigin', { origin });
  await maker.press('Try again');
  await maker.saved();
  await maker.page.reload();
  await maker.stage('Blank');
  await maker.holds('Thickness (Z)', '2.5');
});

test('groups of the library are made, filled, exported and deleted with a way back; arrows walk the cutters', async () => {
  const { maker } = device;
  const { keyboard } = maker.page;
  await maker.press('Tool library');
  await maker.press('New group');
  await maker.focused('Name of the new group');
  await keyboard.type('Brass');
  await keyboard.press('Enter');
  await maker.find('button', 'Drag the group Brass');
  // It is still there after a reload, and takes a cutter by its field.
  await maker.page.reload();
  await maker.find('button', 'Drag the group Brass');
  await maker.press(/^End mill 3 mm/);
  await maker.fill('Group', 'Brass', false);
  await maker.press('More for the group Brass');
  await maker.press('Export as a table (CSV)', 'menuitem');
  const table = readFileSync(await device.downloaded(/^cutters-brass\.csv$/), 'utf8');
  expect(table.trim().split('\n')).toHaveLength(2);
  expect(table).toContain('End mill 3 mm');
  await maker.press('More for the group Brass');
  await maker.press('Delete the group', 'menuitem');
  await maker.sees('"Brass" and its cutter are deleted.');
  await maker.page.waitForFunction(
    () =>
      ![...document.querySelectorAll('button')].some((b) => b.getAttribute('aria-label') === 'Drag the group Brass'),
  );
  await maker.press('Undo in the library');
  await maker.find('button', 'Drag the group Brass');
  // Arrows go from cutter to cutter, and the sheet follows.
  await maker.press(/^End mill 3 mm/);
  const names = await maker.page.$$eval('[data-cutter]', (rows) =>
    rows.map((r) => (r as HTMLElement).innerText.split('\n')[0]),
  );
  const at = names.findIndex((n) => n.startsWith('End mill 3 mm'));
  await keyboard.press('ArrowUp');
  await maker.holds('Name', names[at - 1]);
  await keyboard.press('Home');
  await maker.holds('Name', names[0]);
});
