import type { PointerEvent } from 'react';

interface Props {
  onPress: (e: PointerEvent) => void;
  onMove: (e: PointerEvent) => void;
  onRelease?: () => void;
  onLeave: () => void;
}

/** Lies over the plan while a tool that places points is at work: presses go to the tool, the rest to the plan. */
export function PointerSurface({ onPress, onMove, onRelease, onLeave }: Props) {
  return (
    <rect
      width="100%"
      height="100%"
      fill="transparent"
      style={{ pointerEvents: 'auto', cursor: 'crosshair' }}
      onPointerDown={(e) => {
        if (e.button !== 0) return;
        e.stopPropagation();
        e.currentTarget.setPointerCapture(e.pointerId);
        onPress(e);
      }}
      onPointerMove={onMove}
      onPointerUp={onRelease}
      onPointerLeave={onLeave}
    />
  );
}
