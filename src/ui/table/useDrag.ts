import type { Local } from './viewport';
import { useEffect, useRef, type PointerEvent } from 'react';
import { holdSheets } from '@/ui/later';

/** Pointer handlers for a grip in the plan's overlay: begin, drag with the pointer in pixels of the plan, end. */
export function useDrag(
  local: Local,
  on: {
    begin?: (p: { x: number; y: number }, e: PointerEvent) => void;
    drag: (p: { x: number; y: number }, e: PointerEvent) => void;
    end?: (p: { x: number; y: number }) => void;
  },
) {
  const active = useRef(false);
  const letGo = useRef<() => void>(undefined);
  // A grip may go away, or lose the pointer, in the middle of a drag.
  useEffect(() => () => letGo.current?.(), []);
  return {
    style: { pointerEvents: 'auto' as const },
    onPointerDown(e: PointerEvent) {
      if (e.button !== 0) return;
      e.stopPropagation();
      e.currentTarget.setPointerCapture(e.pointerId);
      active.current = true;
      letGo.current = holdSheets();
      on.begin?.(local(e), e);
    },
    onPointerMove(e: PointerEvent) {
      if (!active.current) return;
      e.stopPropagation();
      on.drag(local(e), e);
    },
    onLostPointerCapture() {
      active.current = false;
      letGo.current?.();
    },
    onPointerUp(e: PointerEvent) {
      if (!active.current) return;
      e.stopPropagation();
      active.current = false;
      letGo.current?.();
      on.end?.(local(e));
    },
  };
}
