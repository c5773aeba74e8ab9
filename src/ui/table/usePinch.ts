import { useRef, type PointerEvent } from 'react';
import { zoomed, type Viewport, type Local } from './viewport';

/**
 * Two fingers move and zoom the plan, whatever lies under them: handlers for the capturing phase of the plan, which keep the
 * events from what is under the fingers while there are two. `begin` gives up what the first finger had begun.
 *
 * No package does this: those for gestures take the pointer for themselves at the first finger, and what that one had begun goes on.
 */
export function usePinch(local: Local, begin: () => void, change: (how: (v: Viewport) => Viewport) => void) {
  const fingers = useRef(new Map<number, { x: number; y: number }>());
  const pair = () => {
    const [a, b] = [...fingers.current.values()];
    return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2, d: Math.hypot(a.x - b.x, a.y - b.y) };
  };
  const away = (e: PointerEvent) => void fingers.current.delete(e.pointerId);
  return {
    onPointerDownCapture(e: PointerEvent) {
      if (e.pointerType !== 'touch') return;
      fingers.current.set(e.pointerId, local(e));
      if (fingers.current.size < 2) return;
      e.stopPropagation();
      begin();
    },
    onPointerMoveCapture(e: PointerEvent) {
      if (!fingers.current.has(e.pointerId)) return;
      const two = fingers.current.size === 2;
      const before = two ? pair() : null;
      fingers.current.set(e.pointerId, local(e));
      if (!before) return;
      e.stopPropagation();
      const now = pair();
      change((v) => {
        // What lay under the middle of the fingers goes along with it.
        const w = zoomed(v, before.x, before.y, Math.max(0.2, Math.min(5, now.d / Math.max(1, before.d))));
        return { ...w, ox: w.ox + now.x - before.x, oy: w.oy + now.y - before.y };
      });
    },
    onPointerUpCapture: away,
    onPointerCancelCapture: away,
  };
}
