import {
  useEffect,
  useState,
  type MouseEvent as ReactMouse,
  type PointerEvent as ReactPointer,
  type RefObject,
} from 'react';
import type { PlacedItem } from '@/core/artwork/item';
import { kindOf } from '@/core/cuts/registry';
import type { OneSetup } from '@/core/job/job';
import { useOpenJob } from '@/store/openJob';
import { leaveCopies, together } from '@/ui/actions/artwork';
import { addTab, placesOf } from '@/ui/actions/edits';
import { holdSheets } from '@/ui/later';
import { lightNear } from '@/ui/run/lit';
import { openMenu, setView, typeInto, useView } from '@/ui/view';
import { inFrame, type PickIndex } from './pick';
import { snapMove, type Snap } from './snapping';
import { toWorld, type Local, type Viewport } from './viewport';

/** What a press on the table has turned into. */
export type Gesture =
  | { kind: 'pan'; x: number; y: number; from: Viewport }
  | { kind: 'box'; x0: number; y0: number; x1: number; y1: number; add: boolean }
  | {
      kind: 'move';
      x: number;
      y: number;
      began: boolean;
      starts: Map<number, { id: string; x: number; y: number }>;
      moving: { x: number; y: number }[];
      key: symbol;
    };

/** More things than this are moved in one go at the end of a drag. */
const MANY = 20;

function moveTo(
  starts: ReadonlyMap<number, { id: string; x: number; y: number }>,
  dx: number,
  dy: number,
  key: symbol,
): void {
  useOpenJob.getState().edit(
    'Move',
    (j) => {
      for (const [k, at] of starts) {
        const i = j.items[k];
        if (i?.id !== at.id) continue;
        i.x = at.x + dx;
        i.y = at.y + dy;
      }
    },
    key,
  );
}

/** What gestures need of the plan. */
interface On {
  readonly job: OneSetup;
  readonly placed: ReadonlyMap<string, PlacedItem>;
  readonly index: PickIndex;
  readonly view: Viewport | null;
  readonly local: Local;
  readonly look: (how: (v: Viewport) => Viewport) => void;
  /** Whether the key is held that makes every press move the view. */
  readonly space: RefObject<boolean>;
}

/** Thing under a place of the plan in mm, within some pixels. */
const thingAt = (index: PickIndex, view: Viewport, w: { x: number; y: number }) =>
  index.at(w.x, w.y, 5 / view.k, 1 / view.k);

/** A press on a thing picks its whole group, a double press the thing alone; with a key held it is added or taken away. */
function pick(job: OneSetup, id: string, add: boolean, twice: boolean): void {
  const { picked } = useView.getState();
  if (twice && !add) return setView({ picked: [id] });
  if (!add && picked.includes(id)) return;
  const whole = together(job, id);
  if (!add) return setView({ picked: whole });
  setView({
    picked: picked.includes(id) ? picked.filter((p) => !whole.includes(p)) : [...new Set([...picked, ...whole])],
  });
}

/** Where things that are dragged come to lie: caught by the blank, other things and guide lines. */
function snapped(gesture: Extract<Gesture, { kind: 'move' }>, dx: number, dy: number, { job, placed, view }: On): Snap {
  const moving = new Set([...gesture.starts.values()].map((s) => s.id));
  const others =
    job.items.length > 400
      ? []
      : job.items.filter((i) => i.visible && !moving.has(i.id)).flatMap((i) => placed.get(i.id) ?? []);
  return snapMove(gesture.moving, dx, dy, job.blank, others, job.guides, 7 / view!.k);
}

/** Beside an outline that is cut free, a double press puts a holding tab; on lettering it types into it. */
function pressedTwice(e: ReactMouse, { job, view, local }: On): void {
  const { stage, tool, cutId, picked } = useView.getState();
  // The first press has picked it.
  const [one, more] = picked;
  if (
    stage === 'artwork' &&
    tool === 'pick' &&
    one &&
    !more &&
    job.items.find((i) => i.id === one)?.kind === 'lettering'
  )
    return typeInto(one);
  const cut = stage === 'cuts' ? job.cuts.find((c) => c.id === cutId) : undefined;
  if (!view || !cut || !kindOf(cut.kind).takesTabs?.(cut.values)) return;
  const p = local(e);
  const w = toWorld(view, p.x, p.y);
  addTab(cut.id, w.x, w.y);
}

/** What the second button asks: about what is picked where the pointer is on it or inside its frame, else about the table. */
function askMenu(e: ReactMouse, { job, placed, index, view, local }: On): void {
  e.preventDefault();
  if (!view) return;
  const p = local(e);
  const w = toWorld(view, p.x, p.y);
  const { picked } = useView.getState();
  const id = thingAt(index, view, w);
  if (id && !picked.includes(id)) setView({ picked: together(job, id) });
  // Inside the frame of what is picked it is about that, even where no line is near.
  const held = picked.some((q) => placed.get(q) && inFrame(placed.get(q)!, w.x, w.y));
  openMenu(e, id !== null || held ? 'items' : 'table');
}

/** Picks what a box holds: dragged to the right what lies wholly in it, to the left what it touches as well. */
function pickInBox(gesture: Extract<Gesture, { kind: 'box' }>, { index, view }: On): void {
  const small = view && Math.hypot(gesture.x1 - gesture.x0, gesture.y1 - gesture.y0) * view.k < 4;
  const found = small ? [] : index.inBox(gesture.x0, gesture.y0, gesture.x1, gesture.y1, gesture.x1 < gesture.x0);
  const { picked } = useView.getState();
  setView({ picked: gesture.add ? [...new Set([...picked, ...found])] : found, marked: null });
}

/** Presses on the plan: they move the view, pick, drag, and ask for menus. */
export function usePlanGestures(on: On) {
  const { job, placed, index, view, local, look, space } = on;
  const [gesture, setGesture] = useState<Gesture | null>(null);
  const [snap, setSnap] = useState<Snap | null>(null);
  const stage = useView((v) => v.stage);
  const tool = useView((v) => v.tool);
  // Many things are drawn aside while they are dragged, and moved when they are let go.
  const shift = gesture?.kind === 'move' && gesture.starts.size > MANY ? snap : null;

  const down = (e: ReactPointer) => {
    if (!view) return;
    const p = local(e);
    if (e.button === 1 || space.current) {
      e.currentTarget.setPointerCapture(e.pointerId);
      return setGesture({ kind: 'pan', x: p.x, y: p.y, from: view });
    }
    if (e.button !== 0) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    (document.activeElement as HTMLElement | null)?.blur?.();
    const w = toWorld(view, p.x, p.y);
    const add = e.shiftKey || e.ctrlKey || e.metaKey;
    if (stage === 'run') void lightNear(w.x, w.y, 6 / view.k);
    const id = thingAt(index, view, w);
    if (!id) return setGesture({ kind: 'box', x0: w.x, y0: w.y, x1: w.x, y1: w.y, add });
    pick(job, id, add, e.detail > 1);
    const now = useView.getState().picked;
    if (!now.includes(id)) return;
    setGesture({
      kind: 'move',
      x: w.x,
      y: w.y,
      began: false,
      starts: new Map(placesOf(now).map((k) => [k, { id: job.items[k].id, x: job.items[k].x, y: job.items[k].y }])),
      moving: now.flatMap((q) => placed.get(q)?.corners ?? []),
      key: Symbol('move'),
    });
  };

  const picking = stage === 'artwork' ? tool === 'pick' : stage === 'cuts';
  const point = (id: string | null) => void (useView.getState().hovered !== id && setView({ hovered: id }));
  const move = (e: ReactPointer) => {
    if (!view) return;
    const p = local(e);
    const w = toWorld(view, p.x, p.y);
    setView({ cursor: w });
    if (!gesture) return point(picking && e.pointerType !== 'touch' ? thingAt(index, view, w) : null);
    if (gesture.kind === 'pan') {
      const { from } = gesture;
      return look(() => ({ ...from, ox: from.ox + p.x - gesture.x, oy: from.oy + p.y - gesture.y }));
    }
    if (gesture.kind === 'box') return setGesture({ ...gesture, x1: w.x, y1: w.y });
    const dx = w.x - gesture.x;
    const dy = w.y - gesture.y;
    if (!gesture.began && Math.hypot(dx, dy) * view.k < 4) return;
    if (!gesture.began) setGesture({ ...gesture, began: true });
    const s = e.altKey ? { dx, dy, xs: [], ys: [] } : snapped(gesture, dx, dy, on);
    setSnap(s);
    if (gesture.starts.size <= MANY) moveTo(gesture.starts, s.dx, s.dy, gesture.key);
  };

  // Whatever is dragged or moved: sheets follow at leisure.
  const busy = gesture !== null;
  useEffect(() => (busy ? holdSheets() : undefined), [busy]);

  const up = (e?: ReactPointer) => {
    if (gesture?.kind === 'move' && gesture.began) {
      if (shift && e) moveTo(gesture.starts, shift.dx, shift.dy, gesture.key);
      if (e && (e.ctrlKey || e.metaKey)) leaveCopies(gesture.starts);
    }
    if (gesture?.kind === 'box') pickInBox(gesture, on);
    setGesture(null);
    setSnap(null);
  };
  return {
    gesture,
    snap,
    shift,
    giveUp: () => setGesture(null),
    handlers: {
      onPointerDown: down,
      onPointerMove: move,
      onPointerUp: up,
      onPointerCancel: () => up(),
      onPointerLeave: () => setView({ cursor: null, hovered: null }),
      onDoubleClick: (e: ReactMouse) => pressedTwice(e, on),
      onContextMenu: (e: ReactMouse) => askMenu(e, on),
    },
  };
}
