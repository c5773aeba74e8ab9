import type { MotionBuilder } from '../motion/motion';
import { nearestOn, pointAt, run, slice, type Track } from '../motion/track';

/** Distances along each track at which holding tabs stand. Placed points go to the nearest track. */
export function placeTabs(tracks: readonly Track[], tabs: { count: number; length: number; at: readonly { x: number; y: number }[] }): number[][] {
  const out: number[][] = tracks.map(() => []);
  if (!tracks.length) return out;
  if (tabs.at.length) {
    for (const p of tabs.at) {
      let best = { i: 0, s: 0, distance: Infinity };
      tracks.forEach((t, i) => {
        const n = nearestOn(t, p.x, p.y);
        if (n.distance < best.distance) best = { i, ...n };
      });
      out[best.i].push(best.s);
    }
    return out;
  }
  tracks.forEach((t, i) => {
    // Long outlines hold `count`; openings inside get as many as their share of the length asks for.
    const longest = Math.max(...tracks.map((u) => u.length));
    const n = Math.max(t.length > 6 * tabs.length ? 2 : 1, Math.round((tabs.count * t.length) / longest));
    const count = t.length === longest ? tabs.count : n;
    if (t.length < 3 * tabs.length) return;
    for (let k = 0; k < count; k++) out[i].push(settle(t, ((k + 0.5) * t.length) / count, tabs.length, t.length / count / 2));
  });
  return out;
}

/** Moves a tab along the track to the nearest place where it stands on a straight or gently bent stretch. */
function settle(track: Track, s: number, length: number, most: number): number {
  const bend = (at: number) => {
    const a = pointAt(track, at - length);
    const b = pointAt(track, at);
    const c = pointAt(track, at + length);
    return Math.max(Math.abs(a.dx * b.dy - a.dy * b.dx), Math.abs(b.dx * c.dy - b.dy * c.dx), 1 - (a.dx * b.dx + a.dy * b.dy), 1 - (b.dx * c.dx + b.dy * c.dy));
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
export function tabSpans(track: Track, tabs: readonly number[], length: number): [number, number][] {
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
  readonly face: number;
  readonly heights: readonly number[];
  readonly tabTop: number;
  readonly feed: number;
  readonly plunge: number;
  readonly ramp: number;
}

/**
 * All passes along one closed track: each ramps down from the one above while it runs, then goes once
 * round at its height; over tabs it never goes below their top.
 */
export function profilePass(b: MotionBuilder, track: Track, start: number, tabs: readonly [number, number][], m: ProfileMoves): void {
  const p = pointAt(track, start);
  if (b.count) b.rapid(b.lastX, b.lastY, m.safe);
  b.rapid(p.x, p.y, m.safe);
  b.rapid(p.x, p.y, Math.min(m.safe, m.clearance));
  b.plunge(m.face, m.plunge);
  let s = start;
  let z = m.face;
  for (const floor of m.heights) {
    const way = Math.min((z - floor) / Math.tan((m.ramp * Math.PI) / 180), 40 * track.length);
    over(b, track, s, s + way, z, floor, tabs, m);
    s = (s + way) % track.length;
    over(b, track, s, s + track.length, floor, floor, tabs, m);
    z = floor;
  }
  b.rapid(b.lastX, b.lastY, m.safe);
}

function over(b: MotionBuilder, track: Track, s0: number, s1: number, z0: number, z1: number, tabs: readonly [number, number][], m: ProfileMoves): void {
  const height = (s: number) => (s1 > s0 ? z0 + ((z1 - z0) * (s - s0)) / (s1 - s0) : z1);
  if (!tabs.length || Math.min(z0, z1) >= m.tabTop) {
    run(b, slice(track, s0, s1), z0, z1, m.feed);
    return;
  }
  // Where the way crosses an end of a tab, or passes below its top while ramping.
  const marks: number[] = [s0, s1];
  for (let turn = Math.floor(s0 / track.length); turn * track.length < s1; turn++)
    for (const [a, c] of tabs) for (const e of [a, c]) marks.push(e + turn * track.length);
  if (z0 > m.tabTop && z1 < m.tabTop) marks.push(s0 + ((s1 - s0) * (z0 - m.tabTop)) / (z0 - z1));
  const cuts = [...new Set(marks.filter((s) => s >= s0 && s <= s1))].sort((a, c) => a - c);
  for (let i = 0; i + 1 < cuts.length; i++) {
    const a = cuts[i];
    const c = cuts[i + 1];
    if (c - a < 1e-9) continue;
    const at = ((a + c) / 2) % track.length;
    const onTab = tabs.some(([f, t]) => at > f && at < t);
    const za = onTab ? Math.max(m.tabTop, height(a)) : height(a);
    const zc = onTab ? Math.max(m.tabTop, height(c)) : height(c);
    if (za > b.lastZ + 1e-9) b.line(b.lastX, b.lastY, za, m.feed);
    else if (za < b.lastZ - 1e-9) b.plunge(za, m.plunge);
    run(b, slice(track, a, c), za, zc, m.feed);
  }
}
