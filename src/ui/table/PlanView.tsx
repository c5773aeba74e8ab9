'use client';
import Box from '@mui/material/Box';
import { lightNear } from '@/ui/run/lit';
import { useColorScheme } from '@mui/material/styles';
import {
  useCallback,
  useEffect,
  useMemo,
  useReducer,
  useRef,
  useState,
  type MouseEvent as ReactMouse,
  type PointerEvent as ReactPointer,
} from 'react';
import { useWork } from '@/compute/pipeline';
import type { PlacedItem } from '@/core/artwork/item';
import { radiusOf } from '@/core/cutters/cutter';
import { pathData } from '@/core/geometry/path';
import { mayHaveTabs } from '@/core/cuts/kinds/profile';
import { datumOf } from '@/core/job/job';
import { holdSheets, useLater } from '@/ui/later';
import { useOpenJob } from '@/store/openJob';
import { leaveCopies, together } from '@/ui/actions/artwork';
import { takeFiles } from '@/ui/actions/drawingFiles';
import { addTab, placesOf } from '@/ui/actions/edits';
import { cutColour } from '@/ui/theme/theme';
import { originOf } from '@/ui/common/useDatum';
import { openMenu, setView, typeInto, useView } from '@/ui/view';
import { artworkPicture } from './artworkCache';
import { pathPicture } from './pathPicture';
import { drawPlan, RULER } from './drawPlan';
import { Guides } from './Guides';
import { Handles } from './Handles';
import { inFrame, PickIndex } from './pick';
import { SectionLineMark } from './SectionLineMark';
import { snapMove, type Snap } from './snapping';
import { TabMarks } from './TabMarks';
import { useSize } from './useSize';
import { DrawLayer } from './tools/DrawLayer';
import { MeasureLayer } from './tools/MeasureLayer';
import { NodesLayer } from './tools/NodesLayer';
import { TrimLayer } from './tools/TrimLayer';
import { STRIP, ToolBar } from './tools/ToolBar';
import { usePinch } from './usePinch';
import { usePlaced } from './usePlaced';
import { fitted, toScreen, toWorld, zoomed, type Viewport } from './viewport';

/** What a press on the table has turned into. */
type Gesture =
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

export function PlanView() {
  const job = useOpenJob((s) => s.job)!;
  const placed = usePlaced(job.items);
  const picked = useView((v) => v.picked);
  const cutId = useView((v) => v.cutId);
  const paths = useView((v) => v.paths);
  const planFit = useView((v) => v.planFit);
  const marked = useView((v) => v.marked);
  const lit = useView((v) => v.lit);
  const play = useView((v) => v.play);
  const gauged = useView((v) => v.gauged);
  const tool = useView((v) => v.tool);
  const sectionOpen = useView((v) => v.sectionOpen);
  const fromCorner = useView((v) => v.fromCorner);
  const origin = useMemo(() => originOf(job, fromCorner), [job, fromCorner]);
  const stage = useView((v) => v.stage);
  const hovered = useView((v) => v.hovered);
  const cuts = useLater(useWork, (w) => w.cuts);
  const [cache] = useState(() => ({ rest: artworkPicture(), top: artworkPicture(), paths: pathPicture() }));
  const [round, again] = useReducer((n: number) => n + 1, 0);
  useEffect(
    () => () => {
      cache.rest.drop();
      cache.top.drop();
      cache.paths.drop();
    },
    [cache],
  );
  const holder = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useSize(holder);
  const [view, setViewport] = useState<Viewport | null>(null);
  const [gesture, setGesture] = useState<Gesture | null>(null);
  const [snap, setSnap] = useState<Snap | null>(null);
  const touched = useRef(false);
  const space = useRef(false);
  const { mode, systemMode } = useColorScheme();
  const dark = (mode === 'system' ? systemMode : mode) === 'dark';
  const { width: bw, height: bh } = job.blank;

  useEffect(() => {
    touched.current = false;
  }, [planFit, bw, bh]);
  useEffect(() => {
    if (size.width && !touched.current)
      setViewport(fitted(bw, bh, size.width, size.height, RULER, stage === 'artwork' ? STRIP : 0));
  }, [size, bw, bh, planFit, stage]);

  const colours = useMemo(
    () =>
      dark
        ? {
            ground: '#171c1f',
            grid: '#2c353a',
            ink: '#dcd8ce',
            quiet: '#98a3a8',
            paper: '#1d2327',
            accent: '#5fb8af',
            danger: '#ef7d69',
            dark,
          }
        : {
            ground: '#fbfaf6',
            grid: '#dcd6c8',
            ink: '#1e2a2f',
            quiet: '#6b767b',
            paper: '#ffffff',
            accent: '#2b7a74',
            danger: '#c2412d',
            dark,
          },
    [dark],
  );
  const mill = useMemo(() => {
    if (!play) return null;
    const c = job.cutters.find((q) => q.id === play.cutterId);
    return { x: play.x, y: play.y, r: c ? radiusOf(c) : 1 };
  }, [play, job.cutters]);

  // Many things are drawn aside while they are dragged, and moved when they are let go.
  const shift = gesture?.kind === 'move' && gesture.starts.size > MANY ? snap : null;
  const framed = stage === 'artwork' && tool === 'pick';
  const showPaths = paths && stage !== 'artwork' && stage !== 'blank';
  // Nothing while no paths are shown: then new plans do not draw the table again.
  const shownCuts = showPaths ? cuts : null;
  const plans = useMemo(
    () =>
      shownCuts
        ? job.cuts.flatMap((c, i) =>
            c.enabled && !c.hidden && shownCuts[c.id]
              ? [{ plan: shownCuts[c.id].plan, colour: cutColour(i), selected: c.id === cutId && stage === 'cuts' }]
              : [],
          )
        : [],
    [shownCuts, job.cuts, cutId, stage],
  );
  useEffect(() => {
    const el = canvas.current;
    if (!el || !view || !size.width) return;
    const dpr = window.devicePixelRatio || 1;
    const [w, h] = [Math.round(size.width * dpr), Math.round(size.height * dpr)];
    // Setting a size clears and makes the canvas anew, even when it is the same.
    if (el.width !== w || el.height !== h) [el.width, el.height] = [w, h];
    drawPlan(
      el.getContext('2d', { willReadFrequently: true })!,
      size.width,
      size.height,
      dpr,
      view,
      { job, placed, plans, picked, framed, gauged, shift, tool: mill, origin },
      colours,
      cache,
      again,
    );
  }, [view, size, job, placed, plans, picked, framed, gauged, shift, mill, origin, colours, cache, again, round]);
  const index = useMemo(() => new PickIndex(job, placed), [job, placed]);

  useEffect(() => {
    const t = setTimeout(() => index.warm(), 250);
    return () => clearTimeout(t);
  }, [index]);

  const local = useCallback((e: { clientX: number; clientY: number }) => {
    const r = holder.current!.getBoundingClientRect();
    return { x: e.clientX - r.left, y: e.clientY - r.top };
  }, []);

  useEffect(() => {
    const el = holder.current!;
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      touched.current = true;
      const p = local(e);
      setViewport((v) => v && zoomed(v, p.x, p.y, Math.exp(-e.deltaY * (e.ctrlKey ? 0.01 : 0.0016))));
    };
    const key = (e: KeyboardEvent) => {
      if (e.code === 'Space') space.current = e.type === 'keydown';
    };
    el.addEventListener('wheel', wheel, { passive: false });
    window.addEventListener('keydown', key);
    window.addEventListener('keyup', key);
    return () => {
      el.removeEventListener('wheel', wheel);
      window.removeEventListener('keydown', key);
      window.removeEventListener('keyup', key);
    };
  }, [local]);

  const pinch = usePinch(
    local,
    () => setGesture(null),
    (how) => {
      touched.current = true;
      setViewport((v) => v && how(v));
    },
  );
  const askMenu = (e: ReactMouse) => {
    e.preventDefault();
    if (!view) return;
    const p = local(e);
    const w = toWorld(view, p.x, p.y);
    const id = index.at(w.x, w.y, 5 / view.k, 1 / view.k);
    if (id && !picked.includes(id)) setView({ picked: together(job, id) });
    // Inside the frame of what is picked it is about that, even where no line is near.
    const held = picked.some((q) => placed.get(q) && inFrame(placed.get(q)!, w.x, w.y));
    openMenu(e, id !== null || held ? 'items' : 'table');
  };

  const down = (e: ReactPointer) => {
    if (!view) return;
    const p = local(e);
    if (e.button === 1 || space.current) {
      e.currentTarget.setPointerCapture(e.pointerId);
      setGesture({ kind: 'pan', x: p.x, y: p.y, from: view });
      return;
    }
    if (e.button !== 0) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    (document.activeElement as HTMLElement | null)?.blur?.();
    const w = toWorld(view, p.x, p.y);
    const add = e.shiftKey || e.ctrlKey || e.metaKey;
    if (stage === 'run') void lightNear(w.x, w.y, 6 / view.k);
    const id = index.at(w.x, w.y, 5 / view.k, 1 / view.k);
    if (!id) {
      setGesture({ kind: 'box', x0: w.x, y0: w.y, x1: w.x, y1: w.y, add });
      return;
    }
    // A press picks the whole group; a double press the one thing.
    if (e.detail > 1 && !add) setView({ picked: [id] });
    else if (add || !picked.includes(id)) {
      const whole = together(job, id);
      if (!add) setView({ picked: whole });
      else
        setView({
          picked: picked.includes(id) ? picked.filter((p) => !whole.includes(p)) : [...new Set([...picked, ...whole])],
        });
    }
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
    if (!gesture)
      return point(picking && e.pointerType !== 'touch' ? index.at(w.x, w.y, 5 / view.k, 1 / view.k) : null);
    if (gesture.kind === 'pan') {
      touched.current = true;
      setViewport({ ...gesture.from, ox: gesture.from.ox + p.x - gesture.x, oy: gesture.from.oy + p.y - gesture.y });
    } else if (gesture.kind === 'box') setGesture({ ...gesture, x1: w.x, y1: w.y });
    else {
      const dx = w.x - gesture.x;
      const dy = w.y - gesture.y;
      if (!gesture.began && Math.hypot(dx, dy) * view.k < 4) return;
      if (!gesture.began) setGesture({ ...gesture, began: true });
      const moving = new Set([...gesture.starts.values()].map((s) => s.id));
      const others =
        job.items.length > 400
          ? []
          : job.items.filter((i) => i.visible && !moving.has(i.id)).flatMap((i) => placed.get(i.id) ?? []);
      const s = e.altKey
        ? { dx, dy, xs: [], ys: [] }
        : snapMove(gesture.moving, dx, dy, job.blank, others, job.guides, 7 / view.k);
      setSnap(s);
      if (gesture.starts.size <= MANY) moveTo(gesture.starts, s.dx, s.dy, gesture.key);
    }
  };

  // Whatever is dragged or moved: sheets follow at leisure.
  const busy = gesture !== null;
  useEffect(() => (busy ? holdSheets() : undefined), [busy]);

  const up = (e?: ReactPointer) => {
    if (gesture?.kind === 'move' && gesture.began) {
      if (shift && e) moveTo(gesture.starts, shift.dx, shift.dy, gesture.key);
      if (e && (e.ctrlKey || e.metaKey)) leaveCopies(gesture.starts);
    }
    if (gesture?.kind === 'box') {
      const small = view && Math.hypot(gesture.x1 - gesture.x0, gesture.y1 - gesture.y0) * view.k < 4;
      // Dragged to the right it takes what lies wholly in it, to the left what it touches as well.
      const found = small ? [] : index.inBox(gesture.x0, gesture.y0, gesture.x1, gesture.y1, gesture.x1 < gesture.x0);
      setView({ picked: gesture.add ? [...new Set([...picked, ...found])] : found, marked: null });
    }
    setGesture(null);
    setSnap(null);
  };

  /** Beside an outline that is cut free, a double press puts a holding tab. */
  const twice = (e: ReactMouse) => {
    // The first press has picked it.
    const [one, more] = useView.getState().picked;
    if (
      stage === 'artwork' &&
      tool === 'pick' &&
      one &&
      !more &&
      job.items.find((i) => i.id === one)?.kind === 'lettering'
    )
      return typeInto(one);
    const cut = stage === 'cuts' ? job.cuts.find((c) => c.id === cutId) : undefined;
    if (!view || !cut || !mayHaveTabs(cut.values)) return;
    const p = local(e);
    const w = toWorld(view, p.x, p.y);
    addTab(cut.id, w.x, w.y);
  };
  const datum = datumOf(job.blank);
  return (
    <Box
      ref={holder}
      role="application"
      aria-label="Plan of the blank"
      aria-busy={!view || placed.size < job.items.length}
      tabIndex={0}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={() => up()}
      onDoubleClick={twice}
      {...pinch}
      onContextMenu={askMenu}
      onPointerLeave={() => setView({ cursor: null, hovered: null })}
      onDragOver={(e) => e.dataTransfer.types.includes('Files') && e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void takeFiles([...e.dataTransfer.files]);
      }}
      sx={{
        position: 'absolute',
        inset: 0,
        cursor: gesture?.kind === 'pan' ? 'grabbing' : 'default',
        touchAction: 'none',
        userSelect: 'none',
        outline: 'none',
        '&:focus-visible': { boxShadow: 'inset 0 0 0 2px var(--mui-palette-primary-main)' },
      }}
    >
      <canvas ref={canvas} style={{ width: '100%', height: '100%', display: 'block' }} />
      {view && (
        <svg
          width="100%"
          height="100%"
          style={{ position: 'absolute', inset: 0, overflow: 'hidden', pointerEvents: 'none' }}
        >
          {hovered && !gesture && !picked.includes(hovered) && placed.get(hovered) && (
            <Hovered placed={placed.get(hovered)!} view={view} />
          )}
          <Datum {...toScreen(view, datum.x, datum.y)} colour="var(--mui-palette-primary-main)" />
          {snap?.xs.map((x) => (
            <line
              key={`x${x}`}
              x1={toScreen(view, x, 0).x}
              x2={toScreen(view, x, 0).x}
              y1={RULER}
              y2="100%"
              stroke="var(--mui-palette-brass)"
              strokeDasharray="4 3"
            />
          ))}
          {snap?.ys.map((y) => (
            <line
              key={`y${y}`}
              y1={toScreen(view, 0, y).y}
              y2={toScreen(view, 0, y).y}
              x1={RULER}
              x2="100%"
              stroke="var(--mui-palette-brass)"
              strokeDasharray="4 3"
            />
          ))}
          {gesture?.kind === 'box' &&
            (() => {
              const a = toScreen(view, Math.min(gesture.x0, gesture.x1), Math.max(gesture.y0, gesture.y1));
              const b = toScreen(view, Math.max(gesture.x0, gesture.x1), Math.min(gesture.y0, gesture.y1));
              return (
                <rect
                  x={a.x}
                  y={a.y}
                  width={b.x - a.x}
                  height={b.y - a.y}
                  fill="var(--mui-palette-primary-main)"
                  fillOpacity="0.1"
                  stroke="var(--mui-palette-primary-main)"
                  strokeDasharray={gesture.x1 < gesture.x0 ? '5 4' : undefined}
                />
              );
            })()}
          {stage === 'artwork' && (
            <Guides guides={job.guides} view={view} local={local} width={size.width} height={size.height} />
          )}
          {sectionOpen && <SectionLineMark view={view} local={local} />}
          {stage === 'cuts' && <TabMarks view={view} local={local} />}
          {stage === 'artwork' && tool === 'nodes' && (
            <NodesLayer
              item={picked.length === 1 ? (job.items.find((i) => i.id === picked[0]) ?? null) : null}
              unit={job.unit}
              view={view}
              local={local}
              index={index}
            />
          )}
          {stage === 'artwork' && (tool === 'line' || tool === 'curve' || tool === 'arc' || tool === 'centred-arc') && (
            <DrawLayer key={tool} tool={tool} unit={job.unit} view={view} local={local} index={index} />
          )}
          {stage === 'artwork' && tool === 'trim' && <TrimLayer job={job} view={view} local={local} index={index} />}
          {stage === 'artwork' && tool === 'measure' && (
            <MeasureLayer unit={job.unit} view={view} local={local} index={index} />
          )}
          {stage === 'artwork' && tool === 'pick' && <Handles view={view} local={local} placed={placed} />}
          {lit && stage === 'run' && (
            <polyline
              points={Array.from({ length: lit.points.length / 2 }, (_, i) =>
                toScreen(view, lit.points[2 * i], lit.points[2 * i + 1]),
              )
                .map((p) => `${p.x},${p.y}`)
                .join(' ')}
              fill="none"
              stroke="var(--mui-palette-brass)"
              strokeWidth="5"
              strokeLinecap="round"
              strokeLinejoin="round"
              role="img"
              aria-label={`Line ${lit.line}`}
            />
          )}
          {marked && (
            <g>
              <circle
                cx={toScreen(view, marked.x, marked.y).x}
                cy={toScreen(view, marked.x, marked.y).y}
                r="13"
                fill="none"
                stroke="var(--mui-palette-error-main)"
                strokeWidth="3"
              />
              <circle
                cx={toScreen(view, marked.x, marked.y).x}
                cy={toScreen(view, marked.x, marked.y).y}
                r="3"
                fill="var(--mui-palette-error-main)"
              />
            </g>
          )}
        </svg>
      )}
      {stage === 'artwork' && <ToolBar />}
    </Box>
  );
}

/** The datum: a ring with its two axes. */
function Datum({ x, y, colour }: { x: number; y: number; colour: string }) {
  return (
    <g stroke={colour} strokeWidth="2" fill="none" role="img" aria-label="Datum">
      <path d={`M${x} ${y}h30M${x} ${y}v-30`} />
      <circle cx={x} cy={y} r="5.5" fill="var(--mui-palette-background-paper)" />
    </g>
  );
}

/** What the pointer is over, here or in the list. */
function Hovered({ placed, view }: { placed: PlacedItem; view: Viewport }) {
  const d = useMemo(() => pathData(placed.paths, 3), [placed]);
  const { k, ox, oy } = view;
  return (
    <path
      d={d}
      transform={`matrix(${k} 0 0 ${-k} ${ox} ${oy})`}
      fill="none"
      stroke="var(--mui-palette-primary-main)"
      strokeOpacity="0.65"
      strokeWidth="2.5"
      vectorEffect="non-scaling-stroke"
    />
  );
}
