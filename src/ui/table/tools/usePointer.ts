import type { PlacedItem } from '@/core/artwork/item';
import type { OneSetup } from '@/core/job/job';
import { useMemo, useRef, useState, type PointerEvent } from 'react';
import type { Caught } from '@/core/artwork/snap';
import { catchPoint } from '@/core/artwork/snap';
import { useOpenJob } from '@/store/openJob';
import { setView } from '@/ui/view';
import type { PickIndex } from '../pick';
import { niceStep, toWorld, type Viewport, type Local } from '../viewport';

export interface ToolProps {
  readonly view: Viewport;
  readonly local: Local;
  readonly index: PickIndex;
}

/** What a tool's layer over the plan is given. */
export interface LayerProps extends ToolProps {
  readonly job: OneSetup;
  readonly placed: ReadonlyMap<string, PlacedItem>;
}

/** Pixels within which a point is caught. */
const REACH = 9;

/** The pointer in mm with what it catches, for tools that place points. Holding Alt catches nothing. */
export function useCatching(
  { view, local, index }: ToolProps,
  toGrid: boolean,
  from?: () => { x: number; y: number } | undefined,
) {
  const [caught, setCaught] = useState<Caught | null>(null);
  const grid = useMemo(() => niceStep(view.k, 18, 1), [view.k]);
  const last = useRef({ x: 0, y: 0 });
  const read = (e: PointerEvent): { x: number; y: number } => {
    const p = local(e);
    const w = toWorld(view, p.x, p.y);
    setView({ cursor: w });
    const reach = REACH / view.k;
    const hit = e.altKey
      ? null
      : catchPoint(index.near(w.x, w.y, reach), w.x, w.y, reach, toGrid ? grid : null, {
          from: from?.(),
          guides: useOpenJob.getState().job?.guides,
        });
    setCaught(hit);
    last.current = hit ?? w;
    return last.current;
  };
  return { caught, read, forget: () => setCaught(null) };
}
