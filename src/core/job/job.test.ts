import { zipSync, strToU8 } from 'fflate';
import { packJob, unpackJob } from './archive';
import { openZip, type ZipLimits } from './zip';
import { demoJobs, demoSetups } from './demo';
import { blankInUnit, datumOf, jobSchema, newOneSetup } from './job';
import { jobOf, newJob, oneSetup } from './oneSetup';
import { oldJob } from '../testing/old';
import { JobError, readJob } from './migrate';

describe('jobs', () => {
  it.each(Object.entries(demoJobs))('%s is valid and survives its file', (_name, make) => {
    const job = make();
    expect(jobSchema.safeParse(job).success).toBe(true);
    const back = unpackJob(packJob(job, { 'fonts/own.ttf': strToU8('bytes') }));
    expect(back.job).toEqual(job);
    expect(new TextDecoder().decode(back.assets['fonts/own.ttf'])).toBe('bytes');
    expect(unpackJob(strToU8(JSON.stringify(job))).job).toEqual(job);
  });

  it('begin round in their unit, and become so when it changes before anything is drawn', () => {
    const inch = newOneSetup('Sign', 'in');
    expect(jobSchema.safeParse(jobOf(inch)).success).toBe(true);
    const { width, height, thickness, safeHeight, clearance, approach } = inch.blank;
    expect([width, height, thickness, safeHeight, clearance, approach].map((v) => +(v / 25.4).toFixed(6))).toEqual([
      12, 8, 0.75, 0.375, 0.08, 0.02,
    ]);
    const mm = newOneSetup('Sign');
    expect(blankInUnit(mm, 'in')).toEqual(inch.blank);
    expect(blankInUnit(inch, 'mm')).toEqual(mm.blank);
    // What was entered stays, and so does the piece that something lies on.
    expect(blankInUnit({ ...mm, blank: { ...mm.blank, width: 250, clearance: 3 } }, 'in')).toMatchObject({
      width: 250,
      clearance: 3,
      height: 203.2,
    });
    const board = demoSetups['lock-cottage-board']();
    expect(blankInUnit(board, 'in')).toMatchObject({
      width: board.blank.width,
      height: board.blank.height,
      thickness: board.blank.thickness,
    });
  });

  it('of the first version are brought up to date, and the data they came from is left alone', () => {
    const old = oldJob(newOneSetup('old'), 1) as { blank: { intoBed?: number }; version: number };
    delete old.blank.intoBed;
    expect(oneSetup(readJob(old)).blank.intoBed).toBe(0);
    expect(old.version).toBe(1);
  });

  it.each([
    [{}, /not a Mirvak job/],
    [oldJob(newOneSetup('x'), 99), /version 99/],
    [oldJob(newOneSetup('x'), 'two'), /does not say its version/],
    [oldJob({ ...newOneSetup('x'), blank: { ...newOneSetup('x').blank, width: -1 } }), /blanks\.0\.width/],
    [
      oldJob({
        ...newOneSetup('x'),
        items: [
          {
            id: 'a',
            name: 'a',
            kind: 'cube',
            visible: true,
            x: 0,
            y: 0,
            angle: 0,
            mirror: false,
            layer: 'layer-1',
            group: null,
            values: {},
          },
        ],
      }),
      /no kind of item called "cube"/,
    ],
    [
      oldJob({
        ...newOneSetup('x'),
        cuts: [
          { id: 'a', name: 'a', kind: 'area', enabled: true, items: [], values: { depth: 'deep' }, overrides: {} },
        ],
      }),
      /cuts\.0\.values/,
    ],
  ])('that are wrong are refused with the place: %#', (data, why) => {
    expect(() => readJob(data)).toThrow(JobError);
    expect(() => readJob(data)).toThrow(why);
  });

  it.each([
    [strToU8('PK\u0003\u0004 no zip'), /damaged/],
    [zipSync({ 'readme.txt': strToU8('hello') }), /no job\.json/],
    [strToU8('{"a":'), /neither/],
  ])('in broken files are refused: %#', (bytes, why) => expect(() => unpackJob(bytes)).toThrow(why));

  it('have their zero where the datum says', () => {
    const blank = { ...newOneSetup('x').blank, width: 100, height: 40, thickness: 6 };
    expect(datumOf({ ...blank, datum: 'lb', zZero: 'top' })).toEqual({ x: 0, y: 0, z: 0 });
    expect(datumOf({ ...blank, datum: 'cm', zZero: 'bed' })).toEqual({ x: 50, y: 20, z: -6 });
    expect(datumOf({ ...blank, datum: 'rt', zZero: 'top' })).toEqual({ x: 100, y: 40, z: 0 });
  });
});

describe('archives', () => {
  it('are refused by what they say of themselves before anything is opened out, and hold no more than they say', () => {
    const good = packJob(newJob('x'));
    const limits: ZipLimits = { packed: 1e6, opened: 1e6, files: 3, each: [{ ending: 'job.json', most: 2000 }] };
    expect(() => openZip(good, { ...limits, packed: 100 })).toThrow(/larger than 0 MB/);
    expect(() => openZip(good, { ...limits, opened: 100 })).toThrow(/unpacks to more than/);
    expect(() => openZip(zipSync({ a: strToU8('1'), b: strToU8('2') }), { ...limits, files: 1 })).toThrow(
      /more than 1 files/,
    );
    expect(() => openZip(zipSync({ 'x/job.json': new Uint8Array(2001) }), limits)).toThrow(
      /"x\/job\.json" in the archive is larger/,
    );
    // Who says that a hundred bytes are a gigabyte is not given the room; what is not asked for is not looked at.
    const liar = zipSync({ 'job.json': strToU8('{}'), 'a.bin': strToU8('x') });
    const said = new DataView(liar.buffer, liar.byteOffset);
    for (let i = 0; i + 4 < liar.length; i++)
      if (said.getUint32(i, true) === 0x02014b50) {
        said.setUint32(i + 24, 1e9, true);
        break;
      }
    const wide = { ...limits, opened: 2e9, each: [] };
    expect(() => openZip(liar, wide)).toThrow(/"job.json" in the archive is damaged/);
    expect(Object.keys(openZip(liar, { ...wide, wanted: (f) => f === 'a.bin' }))).toEqual(['a.bin']);
    // 8 MB of nothing that say they are 1 kB: no more than that comes out.
    const bomb = zipSync({ 'job.json': new Uint8Array(8 << 20) });
    const view = new DataView(bomb.buffer, bomb.byteOffset);
    for (let i = 0; i + 4 < bomb.length; i++) {
      if (view.getUint32(i, true) === 0x04034b50) view.setUint32(i + 22, 1000, true);
      if (view.getUint32(i, true) === 0x02014b50) view.setUint32(i + 24, 1000, true);
    }
    let out = 0;
    try {
      out = openZip(bomb, limits)['job.json'].length;
    } catch (e) {
      expect(e).toBeInstanceOf(JobError);
    }
    expect(out).toBeLessThanOrEqual(1000);
  });
});
