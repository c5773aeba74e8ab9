import { backwards, enterOpen, type EntryMoves } from '../clearing/entry';
import type { MotionBuilder } from '../../motion/motion';
import { nearestOn, pointAt, run, slice, type ArcSegment, type ArcPolyline } from '../../motion/arcPolyline';
import type { Lead } from './leads';

export const tabShapes = ['rectangular', 'triangular', 'rounded'] as const;
export type TabShape = (typeof tabShapes)[number];

export interface TabPlan {
  readonly by: 'count' | 'spacing';
  readonly count: number;
  readonly spacing: number;
  readonly length: number;
  readonly at: readonly { x: number; y: number }[];
}

/** Tabs share a track with as much cut between them, at least. */
const ROOM = 1.5;

/**
 * Distances along each track at which holding tabs stand. Placed points go to the nearest track; others are spread evenly
 * and moved off corners and off places that are bad for other reasons (`bad` above 0). A track that is too short for all
 * that are asked for gets as many as it holds, `span` being the way over one; `short` tells which and how many.
 */
export function placeTabs(
  tracks: readonly ArcPolyline[],
  tabs: TabPlan,
  span: number,
  bad: (x: number, y: number) => number = () => 0,
): { placed: number[][]; short: { track: number; got: number; asked: number }[] } {
  const out: number[][] = tracks.map(() => []);
  const short: { track: number; got: number; asked: number }[] = [];
  if (!tracks.length) return { placed: out, short };
  if (tabs.at.length) {
    for (const p of tabs.at) {
      let best = { i: 0, s: 0, distance: Infinity };
      tracks.forEach((t, i) => {
        const n = nearestOn(t, p.x, p.y);
        if (n.distance < best.distance) best = { i, ...n };
      });
      out[best.i].push(best.s);
    }
    return { placed: out, short };
  }
  const longest = Math.max(...tracks.map((u) => u.length));
  tracks.forEach((t, i) => {
    // Long outlines hold `count`; openings inside get as many as their share of the length asks for.
    const share = Math.max(t.length > 6 * tabs.length ? 2 : 1, Math.round((tabs.count * t.length) / longest));
    const asked =
      tabs.by === 'spacing'
        ? Math.max(2, Math.round(t.length / tabs.spacing))
        : t.length === longest
          ? tabs.count
          : Math.min(tabs.count, share);
    const count = Math.min(asked, Math.floor(t.length / (ROOM * span)));
    if (count < asked) short.push({ track: i, got: count, asked });
    for (let k = 0; k < count; k++)
      out[i].push(freePlace(t, ((k + 0.5) * t.length) / count, tabs.length, t.length / count / 2, bad));
  });
  return { placed: out, short };
}

/** Moves a tab along the track to the nearest place where it stands on a straight or gently bent stretch. */
function freePlace(
  track: ArcPolyline,
  s: number,
  length: number,
  most: number,
  bad: (x: number, y: number) => number,
): number {
  const bend = (at: number) => {
    const a = pointAt(track, at - length);
    const b = pointAt(track, at);
    const c = pointAt(track, at + length);
    return (
      bad(b.x, b.y) +
      Math.max(
        Math.abs(a.dx * b.dy - a.dy * b.dx),
        Math.abs(b.dx * c.dy - b.dy * c.dx),
        1 - (a.dx * b.dx + a.dy * b.dy),
        1 - (b.dx * c.dx + b.dy * c.dy),
      )
    );
  };
  let best = s;
  let least = bend(s);
  for (let d = length / 4; d < most && least > 0.05; d += length / 4)
    for (const at of [s + d, s - d]) {
      const k = bend(at);
      if (k < least - 1e-9) {
        least = k;
        best = at;
      }
    }
  return ((best % track.length) + track.length) % track.length;
}

/** Stretches [from, to] of a track that lie over tabs, sorted, overlapping ones joined, within one turn. */
export function tabSpans(track: ArcPolyline, tabs: readonly number[], length: number): [number, number][] {
  const raw: [number, number][] = [];
  for (const s of tabs) {
    const a = s - length / 2;
    const b = s + length / 2;
    if (a < 0) raw.push([a + track.length, track.length], [0, b]);
    else if (b > track.length) raw.push([a, track.length], [0, b - track.length]);
    else raw.push([a, b]);
  }
  raw.sort((p, q) => p[0] - q[0]);
  const out: [number, number][] = [];
  for (const s of raw) {
    const last = out[out.length - 1];
    if (last && s[0] <= last[1] + 1e-6) last[1] = Math.max(last[1], s[1]);
    else out.push([...s]);
  }
  return out;
}

export interface ProfileMoves {
  readonly safe: number;
  readonly clearance: number;
  readonly approach: number;
  readonly stockTop: number;
  readonly levels: readonly number[];
  readonly tabTop: number;
  /** Height of the tabs' foot (the bed side of the blank), their shape, and how far along the track they rise. */
  readonly tabFoot: number;
  readonly tabShape: TabShape;
  readonly tabRise: number;
  readonly feed: number;
  readonly plunge: number;
  readonly ramp: number;
}

/** How a profile comes down along an open way: always by a ramp. */
export const byRamp = (m: ProfileMoves): EntryMoves => ({ ...m, entry: 'ramp', radius: 0 });

/** All passes along one closed track: each ramps down from the one above while it runs, then goes once round at its height. */
export function profilePass(
  b: MotionBuilder,
  track: ArcPolyline,
  start: number,
  tabs: readonly [number, number][],
  m: ProfileMoves,
): void {
  const p = pointAt(track, start);
  b.lift(m.safe);
  b.rapid(p.x, p.y, m.safe);
  b.rapid(p.x, p.y, Math.min(m.safe, m.clearance));
  b.plunge(m.stockTop, m.plunge);
  let s = start;
  let z = m.stockTop;
  for (const floor of m.levels) {
    const way = Math.min((z - floor) / Math.tan((m.ramp * Math.PI) / 180), 40 * track.length);
    over(b, track, s, s + way, z, floor, tabs, m);
    s = (s + way) % track.length;
    over(b, track, s, s + track.length, floor, floor, tabs, m);
    z = floor;
  }
  b.lift(m.safe);
}

/** The same with a way in and out: every pass comes in, goes round once, and goes out. */
export function passWithLeads(
  b: MotionBuilder,
  track: ArcPolyline,
  lead: Lead,
  tabs: readonly [number, number][],
  m: ProfileMoves,
): void {
  const p = pointAt(lead.into, 0);
  b.lift(m.safe);
  let previousLevel = m.stockTop;
  for (const floor of m.levels) {
    b.rapid(p.x, p.y, b.count && previousLevel !== m.stockTop ? m.clearance : m.safe);
    enterOpen(b, lead.into, byRamp(m), floor, previousLevel, false);
    run(b, lead.into.segments, floor, floor, m.feed);
    over(b, track, lead.s, lead.s + track.length, floor, floor, tabs, m);
    run(b, lead.out.segments, b.lastZ, b.lastZ, m.feed);
    b.lift(m.clearance);
    previousLevel = floor;
  }
  b.lift(m.safe);
}

/** How far a tab of this shape has risen (0..1) at a share of the way up its side. */
const risen: Record<TabShape, (f: number) => number> = {
  rectangular: () => 1,
  triangular: (f) => f,
  rounded: (f) => Math.sqrt(Math.max(0, 1 - (1 - f) ** 2)),
};

/** What goes down while it goes along is fed no faster than twice the plunge. */
const slow = (m: ProfileMoves) => Math.min(m.feed, 2 * m.plunge);

/** Behind a tab: down to `z` by a ramp to and fro along the way ahead, and back to where it begins. */
function downAgain(b: MotionBuilder, ahead: readonly ArcSegment[], z: number, m: ProfileMoves): void {
  const long = ahead.reduce((s, t) => s + t.length, 0);
  const drop = b.lastZ - z;
  const way = drop / Math.tan((m.ramp * Math.PI) / 180) / 2;
  if (!(long > 1e-6)) return b.plunge(z, m.plunge);
  const times = Math.max(1, Math.ceil(way / long));
  const leg = slice({ segments: [...ahead], length: long, closed: false }, 0, way / times);
  for (let k = 0; k < times; k++) {
    const at = (f: number) => z + (drop * (times - k - f)) / times;
    run(b, leg, at(0), at(0.5), slow(m));
    run(b, backwards(leg), at(0.5), at(1), slow(m));
  }
}

function over(
  b: MotionBuilder,
  track: ArcPolyline,
  s0: number,
  s1: number,
  z0: number,
  z1: number,
  tabs: readonly [number, number][],
  m: ProfileMoves,
): void {
  const height = (s: number) => (s1 > s0 ? z0 + ((z1 - z0) * (s - s0)) / (s1 - s0) : z1);
  if (!tabs.length || Math.min(z0, z1) >= m.tabTop) {
    run(b, slice(track, s0, s1), z0, z1, z1 < z0 ? slow(m) : m.feed);
    return;
  }
  // Where the way crosses an end of a tab or bends on its side, or passes below its top while ramping.
  const marks: number[] = [s0, s1];
  const bends =
    m.tabShape === 'rectangular'
      ? []
      : m.tabShape === 'triangular'
        ? [1]
        : Array.from({ length: 12 }, (_, i) => 1 - Math.cos(((i + 1) * Math.PI) / 24));
  for (let turn = Math.floor(s0 / track.length); turn * track.length < s1; turn++)
    for (const [a, c] of tabs) {
      marks.push(a + turn * track.length, c + turn * track.length);
      for (const f of bends) {
        const d = Math.min(f * m.tabRise, (c - a) / 2);
        marks.push(a + d + turn * track.length, c - d + turn * track.length);
      }
    }
  if (z0 > m.tabTop && z1 < m.tabTop) marks.push(s0 + ((s1 - s0) * (z0 - m.tabTop)) / (z0 - z1));
  const cuts = [...new Set(marks.filter((s) => s >= s0 && s <= s1))].sort((a, c) => a - c);
  for (let i = 0; i + 1 < cuts.length; i++) {
    const a = cuts[i];
    const c = cuts[i + 1];
    if (c - a < 1e-9) continue;
    const mid = ((a + c) / 2) % track.length;
    const tab = tabs.find(([f, t]) => mid > f && mid < t);
    const at = (s: number) => {
      if (!tab) return height(s);
      const here = mid + (s - (a + c) / 2);
      const f = Math.min(1, Math.max(0, Math.min(here - tab[0], tab[1] - here)) / m.tabRise);
      return Math.max(m.tabFoot + (m.tabTop - m.tabFoot) * risen[m.tabShape](f), height(s));
    };
    const za = at(a);
    const zc = at(c);
    if (za > b.lastZ + 1e-9) b.line(b.lastX, b.lastY, za, m.feed);
    else if (za < b.lastZ - 1e-9) downAgain(b, slice(track, a, c), za, m);
    run(b, slice(track, a, c), za, zc, zc < za ? slow(m) : m.feed);
  }
}
