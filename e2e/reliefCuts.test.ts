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
  await maker.fill('Nodes lie apart', '0.1');
  await maker.find('button', 'Relief, ready');
  await maker.stage('Cuts');
  await maker.find('button', 'Cuts, ready');
  await maker.press('Add a cut');
  await maker.press(/^Relief finishing/, 'menuitem');
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
});
