'use client';
import Box from '@mui/material/Box';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { scaleLinear } from 'd3-scale';
import { seconds, sumTimes } from '@/core/motion/timing';
import { durationText } from '@/core/units/duration';
import { cutColour } from '@/ui/theme/theme';
import { useOpenJobLater, useWorkLater } from '@/ui/following';
import { useState } from 'react';

/** How the minutes are spent, cut by cut and cutter by cutter: cutting, plunging, air; and tool changes. */
export function Ledger() {
  const job = useOpenJobLater((s) => s.job)!;
  const proof = useWorkLater((w) => w.proof);
  const [by, setBy] = useState<'cut' | 'cutter'>('cut');
  if (!proof) return null;
  const cutter = (tool: number) =>
    job.cutters.find((q) => q.id === proof.tools.find((p) => p.tool === tool)?.cutterId)?.name ?? '';
  const rows =
    by === 'cut'
      ? job.cuts.flatMap((c, i) => {
          // The way to the place where it parks is the last cut’s as well.
          const mine = proof.times.filter((t) => t.cutId === c.id);
          return [...new Set(mine.map((t) => t.tool))].map((tool) => ({
            key: `${c.id}-${tool}`,
            name: c.name,
            more: cutter(tool),
            colour: cutColour(i),
            time: sumTimes(mine.filter((t) => t.tool === tool).map((t) => t.time)),
          }));
        })
      : [...new Set(proof.times.map((t) => t.tool))].map((tool) => {
          const mine = proof.times.filter((t) => t.tool === tool);
          const cuts = new Set(mine.map((t) => t.cutId)).size;
          return {
            key: String(tool),
            name: cutter(tool),
            more: `T${tool}, ${cuts} ${cuts === 1 ? 'cut' : 'cuts'}`,
            colour: 'var(--mui-palette-primary-main)',
            time: sumTimes(mine.map((t) => t.time)),
          };
        });
  const changes = proof.standing;
  const most = Math.max(changes * 60, ...rows.map((r) => seconds(r.time)), 1);
  const x = scaleLinear().domain([0, most]).range([0, 100]);
  const bar = (parts: { value: number; colour: string; opacity: number }[]) => (
    <Box
      sx={{ display: 'flex', height: 8, borderRadius: 1, overflow: 'hidden', bgcolor: 'var(--mui-palette-divider)' }}
    >
      {parts.map((p, i) => (
        <Box key={i} sx={{ width: `${x(p.value)}%`, bgcolor: p.colour, opacity: p.opacity }} />
      ))}
    </Box>
  );
  return (
    <>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={by}
        aria-label="Minutes by"
        onChange={(_, v) => v && setBy(v)}
        sx={{ mb: 1.25 }}
      >
        <ToggleButton value="cut">By cut</ToggleButton>
        <ToggleButton value="cutter">By cutter</ToggleButton>
      </ToggleButtonGroup>
      <Box
        component="ul"
        aria-label="Minutes per cut and cutter"
        sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 1.25, fontSize: 12.5 }}
      >
        {rows.map((r) => (
          <li key={r.key}>
            <Box sx={{ display: 'flex', gap: 1, mb: 0.4 }}>
              <Box sx={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
                <b>{r.name}</b>{' '}
                <Box component="span" sx={{ color: 'text.secondary' }}>
                  {r.more}
                </Box>
              </Box>
              <b>{durationText(seconds(r.time) / 60)}</b>
            </Box>
            {bar([
              { value: r.time.cutting, colour: r.colour, opacity: 1 },
              { value: r.time.plunging, colour: r.colour, opacity: 0.55 },
              { value: r.time.air, colour: 'var(--mui-palette-text-secondary)', opacity: 0.35 },
            ])}
            <Box sx={{ color: 'text.secondary', mt: 0.3 }}>
              cutting {durationText(r.time.cutting / 60)} {'\u00b7'} plunging {durationText(r.time.plunging / 60)}{' '}
              {'\u00b7'} air {durationText(r.time.air / 60)}
            </Box>
          </li>
        ))}
        <li>
          <Box sx={{ display: 'flex', mb: 0.4 }}>
            <Box sx={{ flex: 1 }}>
              <b>Tool changes</b>{' '}
              <Box component="span" sx={{ color: 'text.secondary' }}>
                {proof.toolChanges}
              </Box>
            </Box>
            <b>{durationText(changes)}</b>
          </Box>
          {bar([{ value: changes * 60, colour: 'var(--mui-palette-brass)', opacity: 1 }])}
        </li>
      </Box>
    </>
  );
}
