import { eachOnAFreshDevice } from './device';

const device = eachOnAFreshDevice();

test('a changed cutter is kept by the library and offered to the job, which keeps its own until it is taken', async () => {
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

test('an impossible cutter is explained and not kept', async () => {
  const { maker } = device;
  await maker.press('Open Lock cottage board');
  await maker.press('Tool library');
  await maker.press(/^V-bit 60\u00b0 12 mm/);
  await maker.fill('Included angle', '200');
  await maker.sees(/At most/);
  await maker.page.keyboard.press('Escape');
  await maker.holds('Included angle', '60');
});

test('a full device says what to do, and nothing is lost', async () => {
  const { maker } = device;
  await maker.press('Open Sluice gear plate');
  await maker.saved();
  const cdp = await maker.page.createCDPSession();
  const origin = new URL(maker.page.url()).origin;
  await cdp.send('Storage.overrideQuotaForOrigin', { origin, quotaSize: 1 });
  // The browser asks for what is left only every half minute.
  await new Promise((r) => setTimeout(r, 31000));
  await maker.stage('Blank');
  await maker.fill('Thickness (Z)', '2.5');
  await maker.sees('This device has no room left');
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
