import { DWELL, MotionBuilder, withoutArcs, type Motion } from '../motion/motion';
import type { Dialect } from './dialect';
import { ownLineTroubles } from './ownLines';
import { parseProgram, ProgramError, type ParsedProgram } from './parser';
import { writeProgram, type ProgramInfo, type ProgramPart } from './writer';

/** The most by which a program's way may stand off the plan's, mm: three decimals round by up to 0.0009 in space, chords add 0.0003. */
const CLOSE = 0.00125;

/** A small piece of work with every sort of move, holes in pecks and with a wait, and a cutter that does not turn: what a dialect is tried on. */
export function trialParts(): ProgramPart[] {
  const a = new MotionBuilder();
  a.rapid(5, 5, 10);
  a.rapid(5, 5, 1);
  a.plunge(-1.25, 250);
  a.line(32.125, 5, -1.25, 1200);
  a.arc(true, 32.125, 15.5, -1.5, 32.125, 10.25, 900);
  a.arc(false, 21.625, 26, -1.5, 32.125, 26, 900);
  a.line(5.0625, 5.0625, -1.5, 1200);
  a.rapid(5.0625, 5.0625, 10);
  const b = new MotionBuilder();
  b.rapid(40, 5, 10);
  b.rapid(40, 5, 0.5);
  b.plunge(-0.08, 120);
  b.line(48.3333, 17.7777, -0.08, 800);
  b.rapid(48.3333, 17.7777, 10);
  const c = new MotionBuilder();
  c.rapid(10, 35, 10);
  c.rapid(10, 35, 0.3);
  c.plunge(-1.7, 180);
  c.rapid(10, 35, 0.3);
  c.rapid(10, 35, -1.4);
  c.plunge(-3, 180);
  c.rapid(10, 35, 2);
  c.rapid(30, 35, 2);
  c.plunge(-2.5, 180);
  c.dwell(0.4);
  c.rapid(30, 35, 10);
  return [
    {
      tool: 1,
      toolName: 'End mill 3 mm',
      cutNumber: 1,
      cutName: 'Channel',
      rpm: 12000,
      turns: true,
      motion: a.build(),
    },
    {
      tool: 2,
      toolName: 'Drag diamond',
      cutNumber: 2,
      cutName: 'Serial number',
      rpm: 0,
      turns: false,
      motion: b.build(),
    },
    {
      tool: 3,
      toolName: 'Drill 3 mm',
      cutNumber: 3,
      cutName: 'Screw holes',
      rpm: 4000,
      turns: true,
      motion: c.build(),
    },
  ];
}

/** Seconds for which a motion stands still. */
function waited(m: Motion): number {
  let sum = 0;
  for (let i = 0; i < m.count; i++) if (m.kind[i] === DWELL) sum += m.feed[i];
  return sum;
}

/** Distance from a point to the way of a motion without arcs. */
function distanceTo(m: Motion, x: number, y: number, z: number): number {
  let best = Infinity;
  for (let i = 1; i < m.count; i++) {
    const [ex, ey, ez] = [m.x[i] - m.x[i - 1], m.y[i] - m.y[i - 1], m.z[i] - m.z[i - 1]];
    const q = ex * ex + ey * ey + ez * ez;
    const t =
      q > 0 ? Math.min(1, Math.max(0, ((x - m.x[i - 1]) * ex + (y - m.y[i - 1]) * ey + (z - m.z[i - 1]) * ez) / q)) : 0;
    best = Math.min(best, Math.hypot(x - m.x[i - 1] - t * ex, y - m.y[i - 1] - t * ey, z - m.z[i - 1] - t * ez));
  }
  return best;
}

/**
 * Writes parts in a dialect, reads the text back, and compares move by move. Null when the program means what was planned;
 * else what is wrong, in words for the person who is editing the dialect.
 */
export function troubleWith(d: Dialect, parts: readonly ProgramPart[], info: ProgramInfo): string | null {
  const [own] = ownLineTroubles(d);
  if (own) return own.text;
  // Once as they are, and once with what is drawn first: what a header leaves on is on then.
  return (
    difference(d, parts, info) ??
    difference(
      d,
      [...parts].sort((a, b) => Number(a.turns) - Number(b.turns)),
      info,
    )
  );
}

function difference(d: Dialect, parts: readonly ProgramPart[], info: ProgramInfo): string | null {
  const text = writeProgram(parts, info, d);
  let back: ParsedProgram;
  try {
    back = parseProgram(text);
  } catch (e) {
    if (!(e instanceof ProgramError)) throw e;
    return `${e.message} A line of your own may be the reason.`;
  }
  if (!back.ended) return 'The program does not end.';
  if (back.sections.length !== parts.length)
    return `The program has ${back.sections.length} stretches of work instead of ${parts.length}: a line of your own stops it or changes the tool.`;
  for (const [k, part] of parts.entries()) {
    const s = back.sections[k];
    if (s.tool !== part.tool) return `Tool ${s.tool} is called where tool ${part.tool} should be.`;
    const want = withoutArcs(part.motion, 0.0003);
    const got = withoutArcs(s.motion, 0.0003);
    for (let i = 0; i < got.count; i++) {
      got.x[i] += info.datum.x;
      got.y[i] += info.datum.y;
      got.z[i] += info.datum.z;
    }
    for (const [from, to, words] of [
      [want, got, 'misses'],
      [got, want, 'strays from'],
    ] as const)
      for (let i = 1; i < from.count; i++) {
        // The way up and home at the end is the program's own.
        if (from === got && from.kind[i] === 0) continue;
        const off = distanceTo(to, from.x[i], from.y[i], from.z[i]);
        if (off > CLOSE)
          return `The program ${words} the plan by ${off.toFixed(4)} mm: ${d.decimals < (d.unit === 'in' ? 5 : 3) ? `${d.decimals} decimals are too few` : 'a line of your own may be the reason'}.`;
      }
    if (Math.abs(waited(part.motion) - waited(s.motion)) > 1e-3)
      return `The program waits ${waited(s.motion)} s at floors instead of ${waited(part.motion)} s.`;
    for (let i = 1; i < s.motion.count; i++) {
      if (s.motion.kind[i] === 0) continue;
      if (part.turns && s.rpm[i] !== Math.round(part.rpm))
        return `The spindle turns ${s.rpm[i]} instead of ${Math.round(part.rpm)} while it cuts.`;
      if (!part.turns && s.rpm[i] !== 0) return 'The spindle turns while a cutter is drawn.';
    }
    const last = s.motion.count - 1;
    if (s.motion.z[last] + info.datum.z < info.safeHeight - CLOSE) return 'The tool is not up at the end.';
    if (k === parts.length - 1 && s.rpm[last] !== 0) return 'The spindle still turns at the end.';
  }
  return null;
}
