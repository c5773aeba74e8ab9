import { PROMISED } from '../cuts/budget';
import { corneredRegion } from '../cuts/corners';
import { offset } from '../geometry/region';
import { putTogether, WIDE, type FitPlace, type Together } from '../proof/fit';
import { pressedSheet } from '../proof/pressedSheet';
import { seamAlong } from '../proof/seam';
import { nodesInside } from '../relief/distance';
import type { Fitted } from './fitting';
import { at, leanOf, NEAR_FACE, OUTSIDE, SHORT, TIGHT, type Halves } from './halves';
import type { Trouble } from './trouble';

/** Room for a sheet between two dies that are closed: least and most, mm. */
export interface Room {
  readonly least: FitPlace;
  readonly most: FitPlace;
}

/** Dies that are closed on a sheet, as they were cut: how much room it has; null where they have no such place. */
export interface PressedFit {
  /** How thick it is, mm. */
  readonly sheet: number;
  readonly walls: Room | null;
  /** On the face round the walls, and on what is raised. */
  readonly face: Room | null;
  readonly raised: Room | null;
}

/**
 * Dies that press a sheet between them: one is cut away where the other is raised, and both stand a sheet apart when they are
 * closed, everywhere.
 *
 *      ______________                ______________   die of what is raised, turned over
 *                    \______________/
 *      ____________   ______________    ___________   the sheet
 *      ____________\                 \ /
 *                   \________________/                die of the pocket
 */
export function pressedPair(h: Halves, sheet: number): Fitted {
  const { pocketCut, plugCut, put, long, tell } = h;
  const v = pocketCut.values as { depth?: number; limit?: number | null; corners?: number; grow?: number };
  const w = plugCut.values as { depth?: number; startDepth?: number; limit?: number | null };
  const [deep, high] = [v.depth ?? v.limit ?? Infinity, w.depth ?? (w.startDepth ?? 0) + (w.limit ?? 0)];
  const { lean, troubles } = leanOf(h);
  const both = putTogether(put, (d) => tell(0.5 * d));
  const wanted = corneredRegion(h.outlines, v, PROMISED);
  // Closed, these heights lie a sheet over one another: across leaning walls that is part of the room between them.
  const level = lean > 0 ? Math.min(NEAR_FACE, deep / 2, high / 2) : deep / 2;
  const seam = seamAlong(
    {
      ...{ ...put, outlines: wanted, lean, pocketAt: -level, plugAt: -(high - level) },
      ...{ within: level * Math.tan(lean) + sheet / Math.cos(lean) + OUTSIDE, outside: OUTSIDE },
      // Narrower ones are raised less than to there, or hardly more.
      narrow: lean > 0 ? (level + HARDLY) * Math.tan(lean) + (sheet * (1 - Math.sin(lean))) / Math.cos(lean) : 0,
    },
    (d) => tell(0.5 + 0.5 * d),
  ).map((p) => ({ ...p, wide: p.wide + sheet * Math.sin(lean) }));
  const met = new Least();
  for (const p of seam) met.take(p.wide, p.x, p.y);
  const flat = flats(both, high, sheet, nodesInside(offset(wanted, -2 * both.pocket.cell), both.pocket));
  const pressed: PressedFit = { sheet, walls: met.room, face: flat.face.room, raised: flat.raised.room };

  if (!seam.length)
    troubles.push({
      text: `Outlines are so narrow everywhere that nothing stands ${long(level)} high: no walls were looked at. Make them bolder, or raise less.`,
      at: null,
    });
  const lost = seam.filter((p) => p.wide !== p.wide);
  if (lost.length)
    troubles.push({
      text: `Walls of both dies do not face each other at ${lost.length} of ${seam.length} places, this one among them: one of both is not cut there, or lies more than ${long(OUTSIDE)} off.`,
      at: at(lost[0]),
    });
  const told = [
    ...roomTold(pressed.walls, 'across the walls', sheet, TIGHT, long),
    ...roomTold(pressed.raised, 'on what is raised', sheet, SHORT, long),
    ...roomTold(pressed.face, 'on the face', sheet, SHORT, long),
  ];
  // Whatever else stands up meets before these do.
  const near = flat.all.room?.least;
  const nearest = told.reduce((a, t) => Math.min(a, t.bites ? t.trouble.at!.mm : Infinity), sheet);
  if (near && near.mm < nearest - SHORT)
    troubles.push({
      text: `Before the dies are closed, they meet here: what stands up ${near.mm < 0 ? `is ${long(-near.mm)} too high for that` : `leaves the sheet ${long(near.mm)}, and it is ${long(sheet)} thick`}. Clear it away.`,
      at: near,
    });
  troubles.push(...told.map((t) => t.trouble));
  return {
    fit: null,
    straight: null,
    pressed,
    seam,
    wanted: sheet,
    joined: null,
    sheet: pressedSheet(both, high, sheet),
    troubles,
  };
}

/** What is amiss of the room that a sheet has somewhere. `tight`: so much less is no matter, mm. */
function roomTold(room: Room | null, where: string, sheet: number, tight: number, long: Halves['long']) {
  const out: { readonly bites: boolean; readonly trouble: Trouble }[] = [];
  if (!room) return out;
  const { least, most } = room;
  const told = (bites: boolean, place: FitPlace, says: string) =>
    out.push({
      bites,
      trouble: { text: `The sheet has ${says} ${where} here, and is ${long(sheet)} thick`, at: place },
    });
  if (least.mm < sheet - tight) told(true, least, least.mm < 0 ? 'no room' : `${long(least.mm)} of room`);
  if (most.mm > sheet + WIDE) told(false, most, `${long(most.mm)} of room`);
  return out.map(({ bites, trouble }) => ({
    bites,
    trouble: { ...trouble, text: `${trouble.text}: ${bites ? 'the dies bite into it' : 'it is not pressed'}.` },
  }));
}

/** The least and the most of what was found at places; what is no number is none. */
class Least {
  private least: FitPlace | null = null;
  private most: FitPlace | null = null;
  take(mm: number, x: number, y: number): void {
    if (mm !== mm) return;
    if (!this.least || mm < this.least.mm) this.least = { mm, x, y };
    if (!this.most || mm > this.most.mm) this.most = { mm, x, y };
  }
  get room(): Room | null {
    return this.least && this.most && { least: this.least, most: this.most };
  }
}

/** What stands up by no more than this above where walls are looked for has none there for certain, mm. */
const HARDLY = 0.06;
/** What ridges of a floor stand up at most, mm. */
const ON = 0.03;

/**
 * Room straight up between closed dies at nodes: on the face, where floor round what is raised lies over it; on what is raised,
 * over the pocket (`inside`: its nodes that no wall is near to); and anywhere.
 */
function flats({ pocket, plugAt }: Together, high: number, sheet: number, inside: Uint8Array) {
  const { cols, rows, cell, z } = pocket;
  const [face, raised, all] = [new Least(), new Least(), new Least()];
  for (let r = 0, i = 0; r < rows; r++)
    for (let c = 0; c < cols; c++, i++) {
      const h = plugAt(c, r);
      const mm = sheet - high - h - z[i];
      const [x, y] = [pocket.x0 + c * cell, pocket.y0 + r * cell];
      all.take(mm, x, y);
      if (z[i] > -1e-6 && h < -high + ON) face.take(mm, x, y);
      else if (inside[i] && h > -1e-6) raised.take(mm, x, y);
    }
  return { face, raised, all };
}
