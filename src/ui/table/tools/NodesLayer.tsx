'use client';
import { useEffect, useState } from 'react';
import { placementOf, type Item } from '@/core/artwork/item';
import {
  addNode,
  beside,
  close,
  deleteNode,
  isSmooth,
  moveHandle,
  moveNode,
  nearest,
  nodeAt,
  nodeCount,
  setSmooth,
  setStraight,
  simplify,
  splitAt,
  startAt,
} from '@/core/artwork/nodes';
import { workCorner, type CornerWork } from '@/core/artwork/cornerWork';
import { inverse, reversePath, transformPath, type Path } from '@/core/geometry/path';
import { parseLength } from '@/core/units/length';
import { changeItem } from '@/ui/actions/edits';
import { toDrawings } from '@/ui/actions/artwork';
import { tell } from '@/ui/actions/tell';
import { setView, useView } from '@/ui/view';
import { useDrag } from '../useDrag';
import { toScreen, toWorld } from '../viewport';
import type { LayerProps, ToolProps } from './usePointer';
import type { Merge } from '@/store/steps';

const input = {
  width: 58,
  font: 'inherit',
  padding: '3px 6px',
  border: '1px solid var(--mui-palette-line)',
  borderRadius: 6,
  background: 'var(--mui-palette-background-paper)',
  color: 'inherit',
} as const;
const pathsOf = (i: Item): Path[] => (i.values as { paths: Path[] }).paths;
/** Beyond this many nodes only those of the nearest outline would help; the maker is asked to zoom or simplify. */
const MOST = 3000;

/** Nodes and handles of the picked drawing, each of which can be dragged; the rest by the buttons below the plan. */
export function NodesLayer({ job: { items, unit }, ...on }: LayerProps) {
  const only = useView((v) => (v.picked.length === 1 ? v.picked[0] : null));
  const item = items.find((i) => i.id === only);
  const { view, local } = on;
  const [picked, setPicked] = useState<{ path: number; node: number } | null>(null);
  const drawing = item?.kind === 'drawing' ? item : null;
  const m = drawing && placementOf(drawing);
  const world = drawing && m ? pathsOf(drawing).map((p) => transformPath(p, m)) : [];
  const change = (name: string, index: number, how: (p: Path) => Path | Path[] | null, merge?: Merge) => {
    if (!drawing || !m) return;
    const back = inverse(m);
    changeItem(
      drawing.id,
      name,
      (i) => {
        const paths = pathsOf(i);
        const got = how(transformPath(JSON.parse(JSON.stringify(paths[index])) as Path, m));
        const list = (got === null ? [] : Array.isArray(got) ? got : [got]).map((p) => transformPath(p, back));
        paths.splice(index, 1, ...list);
      },
      merge,
    );
  };
  const [size, setSize] = useState('5');
  const corner = (how: CornerWork, index: number, node: number) => {
    const mm = parseLength(size, unit);
    if (!mm.ok || !(mm.mm > 0)) return tell('error', 'Say a size for the corner first.');
    if (!workCorner(world[index], node, how, mm.mm))
      return tell('info', 'The sides of this corner are too short for that, or run straight on.');
    change(how === 'round' ? 'Round corner' : 'Chamfer corner', index, (p) => workCorner(p, node, how, mm.mm));
    setPicked(null);
  };
  const [within, setWithin] = useState(unit === 'mm' ? '0.05' : '0.002');
  const simplifyAll = () => {
    const mm = parseLength(within, unit);
    if (!mm.ok || !(mm.mm > 0)) return tell('error', 'Say first how far a simpler outline may lie from this one.');
    const nodes = (list: readonly Path[]) => list.reduce((n, p) => n + nodeCount(p), 0);
    const simple = pathsOf(drawing!).map((p) => simplify(p, mm.mm));
    tell('info', `${nodes(pathsOf(drawing!))} nodes became ${nodes(simple)}, within ${within} ${unit}.`);
    changeItem(drawing!.id, 'Simplify', (i) => void (i.values.paths = simple));
  };
  const at = picked && world[picked.path] && picked.node < nodeCount(world[picked.path]) ? picked : null;
  useEffect(() => {
    const key = (e: KeyboardEvent) => {
      if ((e.target as HTMLElement).closest('input, textarea')) return;
      if (e.key === 'Escape') {
        if (at) setPicked(null);
        else setView({ tool: 'pick' });
      } else if ((e.key === 'Delete' || e.key === 'Backspace') && at) {
        change('Delete node', at.path, (p) => deleteNode(p, at.node));
        setPicked(null);
      } else return;
      e.preventDefault();
      e.stopImmediatePropagation();
    };
    window.addEventListener('keydown', key, true);
    return () => window.removeEventListener('keydown', key, true);
  });
  const total = world.reduce((n, p) => n + nodeCount(p), 0);
  const path = at ? world[at.path] : null;
  const sides = at && path ? beside(path, at.node) : null;
  const hint = !item
    ? 'Pick one drawing to change its nodes.'
    : !drawing
      ? `"${item.name}" keeps its own measures.`
      : total > MOST
        ? `${total} nodes: simplify it first, or take it apart.`
        : at
          ? ''
          : 'Drag nodes; double-press an outline to add one.';
  const buttons: [string, () => void][] = !item
    ? []
    : !drawing
      ? [['Convert to outlines of it', toDrawings]]
      : at && path && sides
        ? [
            [
              isSmooth(path, at.node) ? 'Corner' : 'Smooth',
              () => change('Smooth or corner', at.path, (p) => setSmooth(p, at.node, !isSmooth(p, at.node))),
            ],
            ...(sides.after >= 0
              ? [
                  [
                    path.segments[sides.after].k === 'line' ? 'Curve' : 'Straight',
                    () =>
                      change('Straight or curve', at.path, (p) =>
                        setStraight(p, sides.after, p.segments[sides.after].k !== 'line'),
                      ),
                  ] as [string, () => void],
                ]
              : []),
            ...(path.closed
              ? [
                  [
                    'Begin here',
                    () => (
                      change('Begin loop here', at.path, (p) => startAt(p, at.node)),
                      setPicked({ ...at, node: 0 })
                    ),
                  ] as [string, () => void],
                ]
              : []),
            [
              path.closed ? 'Open here' : 'Part here',
              () => change('Part outline', at.path, (p) => splitAt(p, at.node)),
            ],
            ...(path.closed ? [] : [['Close', () => change('Close line', at.path, close)] as [string, () => void]]),
            ...(sides.before >= 0 && sides.after >= 0
              ? ([
                  ['Round corner', () => corner('round', at.path, at.node)],
                  ['Chamfer corner', () => corner('chamfer', at.path, at.node)],
                ] as [string, () => void][])
              : []),
            ['Reverse', () => change('Reverse', at.path, reversePath)],
            ['Delete', () => (change('Delete node', at.path, (p) => deleteNode(p, at.node)), setPicked(null))],
          ]
        : [['Simplify', simplifyAll]];
  return (
    <g>
      <rect
        width="100%"
        height="100%"
        fill="transparent"
        style={{ pointerEvents: drawing ? 'auto' : 'none', cursor: 'default' }}
        onPointerDown={(e) => {
          // A press beside the drawing goes on to picking.
          const p = local(e);
          const w = toWorld(view, p.x, p.y);
          const near = world.some((q) => nearest(q, w.x, w.y).distance * view.k < 8);
          if (near) e.stopPropagation();
          else setPicked(null);
        }}
        onDoubleClick={(e) => {
          const p = local(e);
          const w = toWorld(view, p.x, p.y);
          let best = { i: -1, distance: 8 / view.k, segment: 0, t: 0 };
          world.forEach((q, i) => {
            const n = nearest(q, w.x, w.y);
            if (n.distance < best.distance) best = { i, ...n };
          });
          if (best.i < 0) return;
          change('Add node', best.i, (q) => addNode(q, best.segment, best.t));
          setPicked({ path: best.i, node: best.segment + 1 });
        }}
      />
      {drawing && total <= MOST && at && path && sides && (
        <Handles path={path} index={at.path} sides={sides} on={on} change={change} node={at.node} />
      )}
      {drawing &&
        total <= MOST &&
        world.map((p, i) =>
          Array.from({ length: nodeCount(p) }, (_, k) => (
            <NodeGrip
              key={`${i} ${k}`}
              path={p}
              index={i}
              node={k}
              chosen={at?.path === i && at.node === k}
              on={on}
              pick={() => setPicked({ path: i, node: k })}
              change={change}
            />
          )),
        )}
      <foreignObject x="66" y="26" width="calc(100% - 76px)" height="80" style={{ pointerEvents: 'none' }}>
        <div
          style={{
            display: 'flex',
            flexWrap: 'wrap',
            gap: 6,
            alignItems: 'center',
            fontSize: 12.5,
            color: 'var(--mui-palette-text-secondary)',
          }}
        >
          {hint}
          {buttons.map(([name, run]) => (
            <button
              key={name}
              type="button"
              onPointerDown={(e) => e.stopPropagation()}
              onClick={run}
              style={{
                pointerEvents: 'auto',
                font: 'inherit',
                fontWeight: 600,
                padding: '3px 9px',
                border: '1px solid var(--mui-palette-line)',
                borderRadius: 7,
                background: 'var(--mui-palette-background-paper)',
                color: 'var(--mui-palette-text-primary)',
                cursor: 'pointer',
                whiteSpace: 'nowrap',
              }}
            >
              {name}
            </button>
          ))}
          {drawing && !at && (
            <label
              style={{ pointerEvents: 'auto', display: 'flex', gap: 5, alignItems: 'center' }}
              onPointerDown={(e) => e.stopPropagation()}
            >
              within
              <input
                aria-label="How far a simpler outline may lie off"
                value={within}
                onChange={(e) => setWithin(e.target.value)}
                style={input}
              />
              {unit}
            </label>
          )}
          {at && sides && sides.before >= 0 && sides.after >= 0 && (
            <label
              style={{ pointerEvents: 'auto', display: 'flex', gap: 5, alignItems: 'center' }}
              onPointerDown={(e) => e.stopPropagation()}
            >
              by
              <input
                aria-label="Size of the corner"
                value={size}
                onChange={(e) => setSize(e.target.value)}
                style={input}
              />
              {unit}
            </label>
          )}
        </div>
      </foreignObject>
    </g>
  );
}

type Change = (name: string, index: number, how: (p: Path) => Path | Path[] | null, merge?: Merge) => void;

function NodeGrip({
  path,
  index,
  node,
  chosen,
  on,
  pick,
  change,
}: {
  path: Path;
  index: number;
  node: number;
  chosen: boolean;
  on: ToolProps;
  pick: () => void;
  change: Change;
}) {
  const { view, local } = on;
  const [key, setKey] = useState<symbol>();
  const drag = useDrag(local, {
    begin: () => {
      pick();
      setKey(Symbol('node'));
    },
    drag: (p) => {
      const w = toWorld(view, p.x, p.y);
      change('Move node', index, (q) => moveNode(q, node, w.x, w.y), key);
    },
  });
  const n = nodeAt(path, node);
  const s = toScreen(view, n.x, n.y);
  const smooth = isSmooth(path, node);
  const look = {
    fill: chosen ? 'var(--mui-palette-primary-main)' : 'var(--mui-palette-background-paper)',
    stroke: 'var(--mui-palette-primary-main)',
    strokeWidth: 1.75,
    cursor: 'move',
    role: 'button',
    'aria-label': `Node ${node + 1} of outline ${index + 1}`,
  } as const;
  return smooth ? (
    <circle cx={s.x} cy={s.y} r="4.5" {...look} {...drag} />
  ) : (
    <rect x={s.x - 4} y={s.y - 4} width="8" height="8" {...look} {...drag} />
  );
}

/** The two handles of the chosen node. */
function Handles({
  path,
  index,
  sides,
  node,
  on,
  change,
}: {
  path: Path;
  index: number;
  sides: { before: number; after: number };
  node: number;
  on: ToolProps;
  change: Change;
}) {
  return (
    <>
      {sides.before >= 0 && (
        <Handle path={path} index={index} segment={sides.before} end={2} node={node} on={on} change={change} />
      )}
      {sides.after >= 0 && (
        <Handle path={path} index={index} segment={sides.after} end={1} node={node} on={on} change={change} />
      )}
    </>
  );
}

function Handle({
  path,
  index,
  segment,
  end,
  node,
  on,
  change,
}: {
  path: Path;
  index: number;
  segment: number;
  end: 1 | 2;
  node: number;
  on: ToolProps;
  change: Change;
}) {
  const { view, local } = on;
  const [key, setKey] = useState<symbol>();
  const drag = useDrag(local, {
    begin: () => setKey(Symbol('handle')),
    drag: (p, e) => {
      const w = toWorld(view, p.x, p.y);
      change('Move handle', index, (q) => moveHandle(q, segment, end, w.x, w.y, isSmooth(q, node) && !e.altKey), key);
    },
  });
  const s = path.segments[segment];
  if (s.k !== 'cubic') return null;
  const h = toScreen(view, end === 1 ? s.x1 : s.x2, end === 1 ? s.y1 : s.y2);
  const n = toScreen(view, nodeAt(path, node).x, nodeAt(path, node).y);
  return (
    <g>
      <line x1={n.x} y1={n.y} x2={h.x} y2={h.y} stroke="var(--mui-palette-brass)" pointerEvents="none" />
      <circle
        cx={h.x}
        cy={h.y}
        r="4.5"
        fill="var(--mui-palette-background-paper)"
        stroke="var(--mui-palette-brass)"
        strokeWidth="2"
        cursor="move"
        role="button"
        aria-label={end === 1 ? 'Handle after the node' : 'Handle before the node'}
        {...drag}
      />
    </g>
  );
}
