import { useState, type ReactNode } from 'react';
import { parseLength, parseNumber, type Unit } from '@/core/units/length';

const field = {
  width: 74,
  font: 'inherit',
  fontSize: 12.5,
  padding: '3px 6px',
  border: '1px solid var(--mui-palette-line)',
  borderRadius: 6,
  background: 'var(--mui-palette-background-paper)',
  color: 'inherit',
} as const;
const line = {
  display: 'flex',
  gap: 6,
  alignItems: 'center',
  fontSize: 12.5,
  color: 'var(--mui-palette-text-secondary)',
} as const;

/** Fields over the plan; Enter takes what is typed. */
function Typed({ take, children }: { take: () => void; children: ReactNode }) {
  return (
    <foreignObject x="66" y="28" width="280" height="40" style={{ pointerEvents: 'auto' }}>
      <form
        onPointerDown={(e) => e.stopPropagation()}
        onSubmit={(e) => {
          e.preventDefault();
          take();
        }}
        style={line}
      >
        {children}
        <button type="submit" hidden />
      </form>
    </foreignObject>
  );
}

/** Radius of the arc between two placed points, typed. */
export function TypedRadius({ unit, onRadius }: { unit: Unit; onRadius: (radius: number) => void }) {
  const [radius, setRadius] = useState('');
  const take = () => {
    const r = parseLength(radius, unit);
    if (r.ok && r.mm > 0) onRadius(r.mm);
  };
  return (
    <Typed take={take}>
      <input
        aria-label="Radius of the arc"
        placeholder={`Radius ${unit}`}
        value={radius}
        onChange={(e) => setRadius(e.target.value)}
        style={field}
      />
    </Typed>
  );
}

/** Length and angle of the next side, typed; Enter places the point. */
export function TypedPoint({ unit, onPoint }: { unit: Unit; onPoint: (length: number, degrees: number) => void }) {
  const [length, setLength] = useState('');
  const [angle, setAngle] = useState('0');
  const take = () => {
    const l = parseLength(length, unit);
    const a = parseNumber(angle);
    if (l.ok && a.ok && l.mm > 0) {
      onPoint(l.mm, a.value);
      setLength('');
    }
  };
  return (
    <Typed take={take}>
      <input
        aria-label="Length of the next side"
        placeholder={`Length ${unit}`}
        value={length}
        onChange={(e) => setLength(e.target.value)}
        style={field}
      />
      at
      <input
        aria-label="Angle of the next side"
        value={angle}
        onChange={(e) => setAngle(e.target.value)}
        style={{ ...field, width: 52 }}
      />
      {'\u00b0'}
    </Typed>
  );
}
