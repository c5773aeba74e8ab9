import { readFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import { emptyBoard } from './board';
import { eachOnAFreshDevice } from './device';
import type { Maker } from './maker';

const device = eachOnAFreshDevice();

/** Lettering on an empty blank, of which a pair is asked for. */
async function asked(maker: Maker, pair = /^V-inlay/, text = 'FEN', capHeight = '24'): Promise<void> {
  await emptyBoard(maker, ['140', '90']);
  await maker.press('Lettering');
  await maker.fill('Text', text, false);
  await maker.fill('Cap height', capHeight);
  await maker.press('Cut this as');
  await maker.press(pair, 'menuitem');
}

/** Names of the programs of all set-ups, as they are saved. */
async function savedPrograms(): Promise<string[]> {
  const { maker } = device;
  await maker.stage('Run');
  await maker.press(/^Save the programs of all set-ups/);
  const files = unzipSync(readFileSync(await device.downloaded(/^new-job-programs\.zip$/)));
  return Object.keys(files).sort();
}

const FITS = 'The plug goes all the way in, and no seam is seen';

test('an inlay is made of picked lettering: values that cannot be are told, and both halves fit', async () => {
  const { maker } = device;
  await asked(maker);
  await maker.sees('0.4 mm for glue under the plug');
  await maker.fill('The plug goes in', '3');
  await maker.sees('The plug would stand on the floor of the pocket');
  await maker.fill('Depth of the pocket', '3.3');
  await maker.sees('0.3 mm for glue under the plug');
  await maker.choose('Material of the plug', 'Walnut');
  await maker.press('Make pocket and plug');
  await maker.find('button', /^Cut 1: Inlay pocket/);
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees('3 mm of 3 mm');
  await maker.sees(FITS);
});

test('(long) the halves of an inlay follow a changed letter, are told where they do not fit, and are saved', async () => {
  const { maker } = device;
  await asked(maker);
  await maker.press('Make pocket and plug');
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees(FITS);
  // A changed letter changes both; until they are proven anew nothing is said of the fit.
  await maker.stage('Artwork');
  await maker.press(/^FEN/, 'treeitem');
  await maker.fill('Text', 'REED', false);
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees(FITS);
  await maker.press(/^Set-up 1, plug, /, 'tab');
  await maker.proven();
  await maker.sees('Fit into "Set-up 1"');
  await maker.sees(FITS);
  // A pocket that is not deep enough lets it stand off, which is said on both sides, with the place.
  await maker.press(/^Set-up 1, (?!plug)/, 'tab');
  await maker.stage('Cuts');
  await maker.press(/^Cut 1: Inlay pocket/);
  await maker.fill('Depth limit', '1');
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees(/stops [\d.]+ mm short of where it is to go/);
  await maker.press('Show me');
  await maker.press(/^Set-up 1, plug, /, 'tab');
  await maker.sees(/stops [\d.]+ mm short of where it is to go/);
  await maker.press('Undo');
  await maker.proven();
  await maker.sees(FITS);
  expect(await savedPrograms()).toEqual([
    '1-set-up-1/new-job-1-set-up-1.nc',
    '2-set-up-1-plug/new-job-2-set-up-1-plug.nc',
  ]);
});

test('(long) dies of lettering are a sheet apart all over, follow a changed letter, and are saved', async () => {
  const { maker } = device;
  await asked(maker, /^Embossing dies/);
  await maker.fill('Raised by', '20');
  await maker.sees('Nothing would be left under the dies');
  await maker.fill('Raised by', '0.5');
  await maker.choose('Walls', 'Upright, by end mills');
  await maker.sees('Corners of both are rounded to 0.5 mm');
  await maker.choose('Walls', 'Leaning, by a V-bit');
  await maker.fill('Thickness of the sheet', '0.1');
  await maker.press('Make both dies');
  await maker.proven();
  await maker.stage('Proof');
  const CLOSED = 'Closed, the dies leave the sheet the room that it needs everywhere';
  await maker.sees(CLOSED);
  await maker.sees(/Room across the walls/);
  await maker.press('Room along the outlines', 'slider');
  await maker.chord('ArrowRight');
  await maker.sees(/Room 0\.(1|099|101) mm/);
  await maker.press('Pressed sheet');
  await maker.press('Sunk die');
  await maker.stage('Artwork');
  await maker.press(/^FEN/, 'treeitem');
  await maker.fill('Text', 'OAK', false);
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees(CLOSED);
  await maker.press(/^Set-up 1, raised die, /, 'tab');
  await maker.proven();
  await maker.sees('Fit into "Set-up 1"');
  await maker.sees(CLOSED);
  // Dies for another sheet: the raised one follows, and they close again.
  await maker.fill('Thickness of the sheet', '0.15');
  await maker.proven();
  await maker.sees(/0\.1(4[5-9]|5) mm to 0\.15\d* mm/);
  await maker.sees(CLOSED);
  // What is raised further than the other is sunk bites into the sheet.
  await maker.stage('Cuts');
  await maker.press(/^Cut 1: Die, raised/);
  await maker.fill('Outline grown by', '0');
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees(/The sheet has [\d.]+ mm of room across the walls here/);
  await maker.press('Show me');
  await maker.press('Undo');
  await maker.proven();
  await maker.sees(CLOSED);
  expect(await savedPrograms()).toHaveLength(2);
});

test('(long) a straight inlay goes in with its clearance, and both halves are seen put together', async () => {
  const { maker } = device;
  await emptyBoard(maker, ['140', '90']);
  await maker.press('Star');
  await maker.press('Cut this as');
  await maker.press(/^Straight inlay/, 'menuitem');
  await maker.sees('Corners of both are rounded to 1 mm');
  await maker.fill('Skin under the plug', '4');
  await maker.sees('nothing would be cut');
  await maker.fill('Skin under the plug', '0.1');
  await maker.fill('Clearance', '0.1');
  await maker.press('Make pocket and plug');
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees('The plug goes in with its clearance all round');
  await maker.sees(/0\.(09\d|1) mm to 0\.1\d* mm/);
  // The chart is pressed and gone along by keys; what it says is marked on the plan.
  await maker.press('Seam along the outlines', 'slider');
  await maker.chord('ArrowRight');
  await maker.sees(/Seam 0\.(09\d|1\d*) mm/);
  await maker.press('Put together');
  // A larger cutter of the pocket leaves its corners rounder: it is told, with the place.
  await maker.stage('Cuts');
  await maker.press(/^Cut 1: Inlay pocket/);
  await maker.fill('Corners rounded to', '0');
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees(/do not meet at|too large for its pocket here|wide here/);
  await maker.press('Show me');
  await maker.press('Undo');
  await maker.proven();
  await maker.sees('The plug goes in with its clearance all round');
  // With the corners of both relieved they stay sharp, and go in again.
  for (const half of ['pocket', 'plug']) {
    if (half === 'plug') await maker.press(/^Set-up 1, plug, /, 'tab');
    await maker.stage('Cuts');
    await maker.press(new RegExp(`^Cut 1: Inlay ${half}`));
    await maker.fill('Corners rounded to', '0');
    await maker.press('Relieve inner corners', 'checkbox');
  }
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees('The plug goes in with its clearance all round');
});

test('(long) both halves of a straight inlay follow a changed letter, and are saved', async () => {
  const { maker } = device;
  await asked(maker, /^Straight inlay/, 'H', '60');
  await maker.press('Make pocket and plug');
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees(/Clearance as it is cut/);
  await maker.stage('Artwork');
  await maker.press(/^H/, 'treeitem');
  await maker.fill('Text', 'O', false);
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees('The plug goes in with its clearance all round');
  await maker.press(/^Set-up 1, plug, /, 'tab');
  await maker.proven();
  await maker.sees('Fit into "Set-up 1"');
  await maker.sees('The plug goes in with its clearance all round');
  expect(await savedPrograms()).toHaveLength(2);
});

test('(long) a packet gets a plug for each layer, is refused where layers lie in one another, and is seen put together', async () => {
  const { maker } = device;
  await emptyBoard(maker, ['140', '90']);
  await maker.press('Star');
  await maker.fill('Centre X', '80');
  await maker.press('Layer');
  await maker.press(/^Star/, 'treeitem');
  await maker.press('Copy what is picked to the layer Layer 2');
  await maker.sees('2 items');
  const askedForBoth = async () => {
    await maker.press(/^Star/, 'treeitem');
    await maker.chord('Control', 'a');
    await maker.sees('2 items picked');
    await maker.press('Cut this as');
    await maker.press(/^Straight inlay/, 'menuitem');
    await maker.press('A plug for each layer, in a material of its own', 'checkbox');
  };
  await askedForBoth();
  await maker.sees('"Layer 1" and "Layer 2" lie in one another');
  await maker.press('Cancel');
  // What was copied last is picked alone, and goes elsewhere.
  await maker.press('Undo');
  await maker.press(/^Star/, 'treeitem');
  await maker.press('Copy what is picked to the layer Layer 2');
  await maker.fill('Centre X', '200');
  await askedForBoth();
  await maker.choose('Material of "Layer 2"', 'Brass');
  await maker.press('Make pocket and plug');
  await maker.proven();
  await maker.stage('Proof');
  await maker.sees('Fit of "Set-up 1, plug, Layer 1"');
  await maker.sees('Fit of "Set-up 1, plug, Layer 2"');
  await maker.press('Put together');
  expect(await savedPrograms()).toHaveLength(3);
});
