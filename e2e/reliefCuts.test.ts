import { emptyBoard } from './board';
import { eachOnAFreshDevice } from './device';

const device = eachOnAFreshDevice();

test('a dome is roughed and finished, a groove rides on it, and another height of it is cut by itself', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.stage('Blank');
  await maker.fill('Width (X)', '40');
  await maker.fill('Height (Y)', '30');
  await maker.stage('Artwork');
  await maker.press('Rectangle');
  await maker.fill('Width', '20');
  await maker.fill('Height', '2');
  await maker.stage('Cuts');
  // Without a relief there is nothing to cut, which is said.
  await maker.press('Add a cut');
  await maker.press(/^Relief roughing/, 'menuitem');
  await maker.sees('There is no relief here to cut');
  await maker.stage('Relief');
  await maker.press('Ground');
  await maker.holds('Name', 'Ground');
  await maker.fill('Dome over the corners', '4');
  await maker.fill('Height', '-4');
  // So many nodes as are meant to be seen: fewer do here.
  await maker.fill('Nodes lie apart', '0.2');
  await maker.find('button', 'Relief, ready');
  // What levels leave is told as long as nothing smooths it, and one press adds what does.
  await maker.stage('Proof');
  await maker.sees(/Up to [\d.]+ mm \([^)]*\) by the levels and the allowance of "Relief roughing"/);
  await maker.press('Add a relief finishing');
  await maker.sees('Nowhere more than its cuts may leave.');
  await maker.stage('Cuts');
  await maker.press(/^Cut 2: Relief finishing/);
  await maker.choose('Pattern', 'Spiral');
  await maker.press('Add a cut');
  await maker.press(/^V-carve/, 'menuitem');
  await maker.press('Follow the relief', 'checkbox');
  await maker.sees('Its depths count from the surface of the relief');
  await maker.stage('Proof');
  await maker.sees('all checks pass');
  // Another height of the dome is another way over it, without a press.
  await maker.stage('Cuts');
  /** Of the whole plan, once they are not those that are named. */
  const minutes = async (not = ''): Promise<string> => {
    const found = await maker.page.waitForFunction(
      (was) => {
        const now = document.body.innerText.match(/\d cutters?\s*·\s*([^,]*\bmin),/)?.[1];
        return now && now !== was ? now : false;
      },
      { timeout: 90000 },
      not,
    );
    return (await found.jsonValue()) as string;
  };
  const before = await minutes();
  await maker.stage('Relief');
  await maker.fill('Dome over the corners', '2');
  await maker.fill('Height', '-2');
  await maker.stage('Cuts');
  await minutes(before);
  await maker.stage('Proof');
  await maker.sees('all checks pass');
  // What rows that lie far apart leave is told, until their maker does not mind it.
  await maker.stage('Cuts');
  await maker.press(/^Cut 2: Relief finishing/);
  await maker.fill('Step-over', '2.5');
  await maker.stage('Proof');
  await maker.sees(/Up to [\d.]+ mm \([^)]*\) between the rows of "Relief finishing"/);
  await maker.sees('all checks pass');
  await maker.stage('Cuts');
  await maker.fill('Where more is left than', '5');
  await maker.stage('Proof');
  await maker.sees('Nowhere more than its cuts may leave.');
  // However far down a sheet was read, the next one begins at its top.
  await maker.page.$eval('[aria-label=Sheet]', (e) => e.scrollTo(0, e.scrollHeight));
  await maker.stage('Run');
  const program = await maker.find('button', 'Save the program');
  await maker.until(
    () => program.evaluate((e) => e.getBoundingClientRect().top > 0 && e.getBoundingClientRect().bottom < innerHeight),
    'the program to be saved in sight',
  );
});

test('(long) a face is tooled, along a line that is not there too, and says what it took when it is switched off', async () => {
  const { maker } = device;
  await emptyBoard(maker);
  await maker.press('Rectangle');
  await maker.fill('Width', '60');
  await maker.fill('Height', '30');
  await maker.stage('Cuts');
  await maker.press('Add a cut');
  await maker.press(/^Tooled texture/, 'menuitem');
  const took = async (not: string, says = 'up to date') => {
    const found = await maker.page.waitForFunction(
      (was, words) => {
        const card = [...document.querySelectorAll('li')].find((l) => l.innerText.includes(words));
        const now = card?.innerText.match(/[\d.]+ (min|s)\b/)?.[0];
        return now && now !== was ? now : false;
      },
      {},
      not,
      says,
    );
    return (await found.jsonValue()) as string;
  };
  const first = await took('');
  await maker.fill('Lines of strokes lie apart', '1');
  const closer = await took(first);
  // Strokes along a line need one: it is said, and the rest waits.
  await maker.choose('Strokes run', 'Along a line');
  await maker.sees('none is picked. Pick an open line too');
  await maker.press('Undo');
  await took(first);
  await maker.press('More for Tooled texture');
  await maker.press('Switch off', 'menuitem');
  await maker.sees('switched off');
  await maker.sees(closer);
  // What is changed while it is off is weighed too.
  await maker.fill('Lines of strokes lie apart', '2');
  const wider = await took(closer, 'switched off');
  expect(wider).not.toBe(first);
  await maker.press('Undo');
  await took(wider, 'switched off');
  await maker.press('Undo');
  await maker.stage('Proof');
  await maker.sees('all checks pass');
});
