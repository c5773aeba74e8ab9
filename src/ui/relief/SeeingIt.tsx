'use client';
import Box from '@mui/material/Box';
import { useDeferredValue, useMemo, useRef, type PointerEvent } from 'react';
import { tints, type Tint } from '@/core/relief/tint';
import { choices } from '@/core/units/fields';
import type { HeightField } from '@/core/relief/field';
import { undraftedShare } from '@/core/relief/steep';
import { ChoiceField, FlagField, NumberField } from '@/ui/common/fields';
import { setView, useView } from '@/ui/view';
import { useOpenJobLater, useWorkLater } from '@/ui/following';

const R = 34;
/** The lowest that the light is brought, degrees: it rakes. */
const LOWEST = 3;
const DRAFT = 5;

const look = (change: Partial<ReturnType<typeof useView.getState>['seen']>) =>
  setView((v) => ({ seen: { ...v.seen, ...change } }));

/** The sky over the relief: the light is dragged to where it comes from, low at the rim, straight above in the middle. */
function Sky() {
  const { from, high } = useView((v) => v.seen);
  const held = useRef(false);
  const out = (R * (90 - high)) / 90;
  const [x, y] = [out * Math.cos((from * Math.PI) / 180), -out * Math.sin((from * Math.PI) / 180)];
  const drag = (e: PointerEvent<HTMLDivElement>) => {
    const b = e.currentTarget.getBoundingClientRect();
    const [dx, dy] = [e.clientX - b.x - b.width / 2, b.y + b.height / 2 - e.clientY];
    const turned = Math.round((Math.atan2(dy, dx) * 180) / Math.PI);
    const far = Math.min(1, Math.hypot(dx, dy) / R);
    look({ from: (turned + 360) % 360, high: Math.max(LOWEST, Math.round(90 * (1 - far))) });
  };
  return (
    <Box
      role="slider"
      tabIndex={0}
      aria-label="Light"
      aria-valuemin={0}
      aria-valuemax={359}
      aria-valuenow={from}
      aria-valuetext={`from ${from} degrees, ${high} degrees high`}
      onPointerDown={(e: PointerEvent<HTMLDivElement>) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        held.current = true;
        drag(e);
      }}
      onPointerMove={(e: PointerEvent<HTMLDivElement>) => held.current && drag(e)}
      onPointerUp={() => (held.current = false)}
      onLostPointerCapture={() => (held.current = false)}
      onKeyDown={(e: React.KeyboardEvent) => {
        const turn = e.key === 'ArrowLeft' ? 5 : e.key === 'ArrowRight' ? -5 : 0;
        const lift = e.key === 'ArrowUp' ? 5 : e.key === 'ArrowDown' ? -5 : 0;
        if (!turn && !lift) return;
        e.preventDefault();
        e.stopPropagation();
        look({ from: (from + turn + 360) % 360, high: Math.min(90, Math.max(LOWEST, high + lift)) });
      }}
      sx={{
        flexShrink: 0,
        touchAction: 'none',
        cursor: 'grab',
        borderRadius: '50%',
        '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)' },
      }}
    >
      <svg
        width={2 * R + 12}
        height={2 * R + 12}
        viewBox={`${-R - 6} ${-R - 6} ${2 * R + 12} ${2 * R + 12}`}
        style={{ display: 'block', pointerEvents: 'none' }}
      >
        <circle r={R} fill="var(--mui-palette-wash)" stroke="var(--mui-palette-divider)" />
        <circle r={R / 2} fill="none" stroke="var(--mui-palette-divider)" />
        <line x2={x} y2={y} stroke="var(--mui-palette-brass)" strokeWidth="1.5" />
        <circle cx={x} cy={y} r="6" fill="var(--mui-palette-brass)" />
      </svg>
    </Box>
  );
}

const PROOF = ' proof';

/** What is shown left of a line: the relief without one of its forms, or what the cuts leave of the blank. */
function BesideField() {
  const split = useView((v) => v.split);
  const forms = useOpenJobLater((s) => s.job!.relief.forms);
  const proven = useWorkLater((w) => !!w.proof);
  const shown = forms.filter((f) => f.visible);
  return (
    <ChoiceField
      label="On the left"
      value={split === null ? '' : split.of === 'proof' ? PROOF : split.of.without}
      options={[
        { value: '', label: 'The same' },
        ...(proven ? [{ value: PROOF, label: 'The proof' }] : []),
        ...[...shown].reverse().map((f) => ({ value: f.id, label: `Without ${f.name}` })),
      ]}
      onChange={(v) =>
        setView((was) => ({
          split: v ? { of: v === PROOF ? ('proof' as const) : { without: v }, at: was.split?.at ?? 0.5 } : null,
        }))
      }
    />
  );
}

/** How the relief is shown: by what light, beside what, and where it would hold on to a casting. */
export function SeeingIt({ field }: { field: HeightField }) {
  const { from, high, draft, tint } = useView((v) => v.seen);
  const asked = useDeferredValue(draft);
  const share = useMemo(() => (asked === null ? 0 : undraftedShare(field, asked)), [field, asked]);
  const percent = 100 * share;
  return (
    <>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', mb: 1 }}>
        <Sky />
        <Box sx={{ fontSize: 13 }}>
          <div>Light</div>
          <Box sx={{ color: 'text.secondary' }}>{`from ${from}\u00b0, ${high}\u00b0 high`}</Box>
        </Box>
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1.25, mb: 1 }}>
        <ChoiceField
          label="Coloured by"
          value={tint}
          options={choices(tints)}
          onChange={(v) => look({ tint: v as Tint })}
        />
        <BesideField />
      </Box>
      <FlagField
        label="Tint walls with too little draft"
        value={draft !== null}
        onChange={(on) => look({ draft: on ? DRAFT : null })}
      />
      {draft !== null && (
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1.25, mt: 1 }}>
          <NumberField
            label="Least draft"
            value={draft}
            unit={'\u00b0'}
            min={0}
            max={89}
            hint="Leaning from upright"
            onChange={(v) => look({ draft: v })}
          />
          <Box role="status" sx={{ fontSize: 13, pt: 3.5 }}>
            {share === 0
              ? 'All of it has as much.'
              : `${percent < 0.1 ? 'Less than 0.1' : percent.toFixed(1)} % of it has less.`}
          </Box>
        </Box>
      )}
    </>
  );
}
