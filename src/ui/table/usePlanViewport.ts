import { useCallback, useEffect, useRef, useState } from 'react';
import { useView } from '@/ui/view';
import { RULER } from './drawPlan';
import { useSize } from './useSize';
import { fitted, zoomed, type Viewport, type Local } from './viewport';

/**
 * How the plan is looked at: fitted to the blank, beside `strip` pixels at the left, until the view is moved; moved by wheel and gestures.
 */
export function usePlanViewport(blank: { readonly width: number; readonly height: number }, strip: number) {
  const holder = useRef<HTMLDivElement>(null);
  const size = useSize(holder);
  const planFit = useView((v) => v.planFit);
  const [view, setViewport] = useState<Viewport | null>(null);
  const touched = useRef(false);
  const space = useRef(false);
  const { width: bw, height: bh } = blank;

  useEffect(() => {
    touched.current = false;
  }, [planFit, bw, bh]);
  useEffect(() => {
    if (size.width && !touched.current) setViewport(fitted(bw, bh, size.width, size.height, RULER, strip));
  }, [size, bw, bh, planFit, strip]);

  /** A place in the window as one of the plan, in pixels. */
  const local: Local = useCallback((e) => {
    const r = holder.current!.getBoundingClientRect();
    return { x: e.clientX - r.left, y: e.clientY - r.top };
  }, []);
  /** Looks elsewhere: from then on the view stays as the maker has put it. */
  const look = useCallback((how: (v: Viewport) => Viewport) => {
    touched.current = true;
    setViewport((v) => v && how(v));
  }, []);

  useEffect(() => {
    const el = holder.current!;
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      const p = local(e);
      look((v) => zoomed(v, p.x, p.y, Math.exp(-e.deltaY * (e.ctrlKey ? 0.01 : 0.0016))));
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
  }, [local, look]);

  return { holder, size, view, local, look, space };
}
