import { readFileSync } from 'node:fs';
import { emptyBoard } from './board';
import { eachOnAFreshDevice } from './device';

const device = eachOnAFreshDevice();

test('a mould is made of an outline and lettering; what comes out of it is weighed, shown and saved', async () => {
  const { maker } = device;
  await emptyBoard(maker, ['100', '80']);
  await maker.press('Ellipse');
  await maker.fill('Width', '40');
  await maker.fill('Height', '40');
  await maker.press('Lettering');
  await maker.fill('Text', 'QUAY', false);
  await maker.fill('Cap height', '6');
  await maker.chord('Control', 'k');
  await maker.page.keyboard.type('Centre the picked');
  await maker.chord('Enter');
  // Lettering alone is no casting: it is told, and both are picked.
  await maker.press('Cut this as');
  await maker.press(/^Mould/, 'menuitem');
  await maker.sees(/No picked thing is the outline of the casting/);
  await maker.press('Cancel');
  await maker.page.waitForFunction(() => !document.querySelector('[role=dialog]'));
  await maker.chord('Control', 'a');
  await maker.press('Cut this as');
  await maker.press(/^Mould/, 'menuitem');
  await maker.fill('Depth of the floor', '4');
  await maker.press('Make the mould');
  await maker.find('button', /^Cut 2: Floor/);
  await maker.proven();
  await maker.stage('Proof');
  // 4 mm deep, 20 degrees between its walls, and a little for the letters.
  await maker.sees(/Volume\s+4\.8\d cm/);
  await maker.sees(/Mass\s+35\.\d g/);
  await maker.press('Casting');
  await maker.choose('Cast in', 'Wax');
  await maker.sees(/Mass\s+4\.5\d g/);
  await maker.press('Save as STL');
  const stl = readFileSync(await device.downloaded(/^new-job-casting\.stl$/));
  expect(stl.length).toBe(84 + 50 * stl.readUInt32LE(80));
  expect(stl.readUInt32LE(80)).toBeGreaterThan(10_000);
  await maker.press('No mould');
  await maker.sees('Is it a mould?');
  await maker.press('Undo');
  await maker.sees(/Mass\s+4\.5\d g/);
});

test('(long) a mould is made of a relief: its level floor is found, cleared and cast; what cannot be is told', async () => {
  const { maker } = device;
  await emptyBoard(maker, ['100', '80']);
  // Without a relief there is nothing to make one of.
  await maker.press('Ellipse');
  await maker.fill('Width', '40');
  await maker.fill('Height', '40');
  await maker.stage('Relief');
  await maker.press('From outlines');
  await maker.choose('Edge', 'Flat');
  await maker.fill('Draft of its walls', '10');
  await maker.fill('Height', '3');
  await maker.press('Turned over');
  await maker.fill('Gap above', '0');
  await maker.press('Make a mould of it');
  await maker.sees(/2\.(69\d*|7) mm deep/);
  await maker.fill('Face skimmed by', '0');
  await maker.sees(/(2\.99\d*|3) mm deep, 11\.\d* cm/);
  await maker.press(/^(2\.99\d*|3) mm deep/, 'checkbox');
  await maker.sees('Nothing of the relief is to be cut');
  await maker.press(/^(2\.99\d*|3) mm deep/, 'checkbox');
  await maker.press('Make the mould');
  await maker.find('button', /^Cut 1: Level floor, (2\.99\d*|3) mm/);
  await maker.proven();
  await maker.stage('Proof');
  // From its floor of 19.47 mm to 20 mm at the face.
  await maker.sees(/Volume\s+3\.67 cm/);
  await maker.sees('all checks pass');
  await maker.press('Undo');
  await maker.sees('No cuts yet');
});

test('(long) upright walls are told, with the place; a mould that is cut through runs out', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.press('Rectangle');
  await maker.press('Cut this as');
  await maker.press(/^Area clearance/, 'menuitem');
  await maker.proven();
  await maker.stage('Proof');
  await maker.press('It is a mould');
  await maker.sees(/leans by less than 3/);
  await maker.press('Show me');
  await maker.stage('Cuts');
  await maker.press(/^Cut 1: Area clearance/);
  await maker.fill('Depth', '18.2');
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees('The mould is cut through here');
});

test('(long) a blank is turned over on dowels that are drilled in the set-up before', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.press('Add a set-up');
  await maker.press(/^The other face, turned left to right/, 'menuitem');
  await maker.stage('Blank');
  await maker.press(/^Drill dowel holes in/);
  await maker.sees('put the blank back on its dowels');
  await maker.press('Show them');
  await maker.find('button', /^Cut 1: Dowel holes/);
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees('all checks pass');
});
