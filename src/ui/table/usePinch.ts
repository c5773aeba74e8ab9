import { useRef, type PointerEvent } from 'react';
import { zoomed, type Viewport } from './viewport';

type Local = (e: { clientX: number; clientY: number }) => { x: number; y: number };

/** Two fingers move and zoom the plan. Handlers say true when they took the event. */
export function usePinch(local: Local, change: (how: (v: Viewport) => Viewport) => void) {
  const fingers = useRef(new Map<number, { x: number; y: number }>());
  const pair = () => {
    const [a, b] = [...fingers.current.values()];
    return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2, d: Math.hypot(a.x - b.x, a.y - b.y) };
  };
  return {
    down(e: PointerEvent): boolean {
      if (e.pointerType !== 'touch') return false;
      fingers.current.set(e.pointerId, local(e));
      return fingers.current.size > 1;
    },
    move(e: PointerEvent): boolean {
      if (!fingers.current.has(e.pointerId)) return false;
      if (fingers.current.size !== 2) {
        fingers.current.set(e.pointerId, local(e));
        return false;
      }
      const before = pair();
      fingers.current.set(e.pointerId, local(e));
      const now = pair();
      change((v) => {
        const w = zoomed(v, now.x, now.y, Math.max(0.2, Math.min(5, now.d / Math.max(1, before.d))));
        return { ...w, ox: w.ox + now.x - before.x, oy: w.oy + now.y - before.y };
      });
      return true;
    },
    up(e: PointerEvent): void {
      fingers.current.delete(e.pointerId);
    },
  };
}
