'use client';
import Box from '@mui/material/Box';
import { memo, useDeferredValue, useMemo } from 'react';
import type { PlacedItem } from '@/core/artwork/item';
import { distanceBetween, measure } from '@/core/artwork/measure';
import { formatLength, type Unit } from '@/core/units/length';
import { useRested } from '@/ui/later';

/** Things beyond this count are not measured while they are dragged about. */
const MOST = 12;
/** Milliseconds. */
const REST = 200;
/** Segments. */
const LARGE = 200;

/** Size, area and length of outline of what is picked; the distance between two things. */
export const MeasuresPanel = memo(function MeasuresPanel(p: {
  picked: readonly string[];
  placed: ReadonlyMap<string, PlacedItem>;
  unit: Unit;
}) {
  const { unit } = p;
  // Measuring waits until what was changed has been drawn; what takes longer, until it rests.
  const drawn = useDeferredValue(p.placed);
  const rested = useRested(p.placed, REST);
  const picked = (where: typeof rested) => p.picked.flatMap((id) => where.get(id) ?? []);
  const large = picked(drawn).reduce((n, i) => n + i.shape.paths.reduce((k, q) => k + q.segments.length, 0), 0) > LARGE;
  const where = large ? rested : drawn;
  const placed = useMemo(() => p.picked.flatMap((id) => where.get(id) ?? []), [p.picked, where]);
  const key = placed.length <= MOST;
  const m = useMemo(() => (key ? measure(placed) : null), [placed, key]);
  const d = useMemo(() => (placed.length === 2 ? distanceBetween(placed[0], placed[1]) : null), [placed]);
  const f = (v: number) => `${formatLength(v, unit, unit === 'mm' ? 3 : 4)} ${unit}`;
  const area = (v: number) => (unit === 'mm' ? `${v.toFixed(1)} mm\u00b2` : `${(v / 645.16).toFixed(4)} in\u00b2`);
  const rows: [string, string][] = m
    ? [
        ...(m.box
          ? ([
              ['Width', f(m.box.x1 - m.box.x0)],
              ['Height', f(m.box.y1 - m.box.y0)],
            ] as [string, string][])
          : []),
        ...(m.area > 0 ? ([['Area', area(m.area)]] as [string, string][]) : []),
        ['Length of outline', f(m.length)],
        ...(d
          ? ([['Narrowest distance', d.distance === 0 ? 'they touch or cross' : f(d.distance)]] as [string, string][])
          : []),
      ]
    : [['Measures', `of up to ${MOST} things at a time`]];
  return (
    <Box
      component="dl"
      aria-busy={where !== p.placed}
      sx={{
        m: 0,
        color: where !== p.placed ? 'text.secondary' : undefined,
        display: 'grid',
        gridTemplateColumns: '1fr auto',
        rowGap: 0.4,
        fontSize: 13,
        '& dd': { m: 0, textAlign: 'right', fontVariantNumeric: 'tabular-nums' },
        '& dt': { color: 'text.secondary' },
      }}
    >
      {rows.map(([name, value]) => (
        <Box key={name} sx={{ display: 'contents' }}>
          <dt>{name}</dt>
          <dd>{value}</dd>
        </Box>
      ))}
    </Box>
  );
});
