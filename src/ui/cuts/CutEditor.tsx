'use client';
import Box from '@mui/material/Box';
import Link from '@mui/material/Link';
import Typography from '@mui/material/Typography';
import { presetOf } from '@/core/pipeline/planning';
import { kindOf } from '@/core/cuts/registry';
import { boundsOf, loopArea, type Region } from '@/core/geometry/region';
import type { Cut } from '@/core/job/job';
import { areaText } from '@/core/units/length';
import { After, turns } from '@/ui/later';
import { changeCut, setCutValue } from '@/ui/actions/edits';
import { FieldForm } from '@/ui/common/FieldForm';
import { FlagField, TextField } from '@/ui/common/fields';
import { useDatum } from '@/ui/common/useDatum';
import { Group } from '@/ui/common/SheetParts';
import { UsedItems } from '@/ui/common/UsedItems';
import { useLibrary } from '@/ui/library/useLibrary';
import { reachTint } from '@/ui/table/drawPlan';
import { cutColour } from '@/ui/theme/theme';
import { setView } from '@/ui/view';
import { useOpenJobLater, useViewLater, useWorkLater } from '@/ui/following';
import { Boundary } from './Boundary';
import { DepthDrawing } from './DepthDrawing';
import { Remarks } from './Remarks';
import { Speeds } from './Speeds';

/** Middles of the largest places out of reach. */
function worst(region: Region): { x: number; y: number }[] {
  const large = [...region].filter((l) => loopArea(l) > 0).sort((a, b) => loopArea(b) - loopArea(a));
  return large.slice(0, 5).map((l) => {
    const b = boundsOf([l])!;
    return { x: (b.x0 + b.x1) / 2, y: (b.y0 + b.y1) / 2 };
  });
}

export function CutEditor({ cut }: { cut: Cut }) {
  const job = useOpenJobLater((s) => s.job)!;
  const library = useLibrary((l) => l.cutters);
  const plan = useWorkLater((w) => w.cuts[cut.id]?.plan);
  const facts = useWorkLater((w) => w.relief?.shaped.facts ?? null);
  const asked = useViewLater((v) => v.typing);
  const kind = kindOf(cut.kind);
  // The job's own copies come first: they are what is cut with.
  const cutters = [...job.cutters, ...library.filter((l) => !job.cutters.some((c) => c.id === l.id))];
  const placedTabs = (cut.values.tabs as { at: unknown[] } | undefined)?.at.length ?? 0;
  const origin = useDatum(job);
  return (
    <>
      <Group title={cut.name}>
        <DepthDrawing
          side={kind.side(cut.values, job.blank, (id) => cutters.find((c) => c.id === id) ?? null, facts)}
          blank={job.blank}
          unit={job.unit}
          colour={cutColour(job.cuts.indexOf(cut))}
          cutter={cutters.find((c) => c.id === kind.cutters(cut.values).at(-1)) ?? null}
          lowest={cut.kind !== 'vcarve' ? 'Depth' : cut.values.limit === null ? 'No limit' : 'Limit'}
          clears={cut.kind === 'skim' || (!!kind.fills && cut.values.limit !== null)}
          zero={origin.z}
        />
        <UsedItems
          ids={cut.items}
          words="Cuts"
          none="Pick artwork on the table for this cut"
          needless={kind.bare?.(cut.values) ? 'Needs no artwork' : undefined}
          use={(picked) => changeCut(cut.id, 'Choose artwork', (c) => void (c.items = picked))}
        />
        {kind.fills && <Boundary cut={cut} job={job} />}
        {kind.canRide && (cut.rides || job.relief.forms.length > 0) && (
          <>
            <FlagField
              label="Follow the relief"
              value={!!cut.rides}
              onChange={(rides) => changeCut(cut.id, 'Follow the relief', (c) => void (c.rides = rides))}
            />
            {cut.rides && (
              <Typography variant="caption" component="p" sx={{ mt: -0.5, mb: 1.25, color: 'text.secondary' }}>
                Its depths count from the surface of the relief, which cuts before it have to leave.
              </Typography>
            )}
          </>
        )}
        <FieldForm
          fields={kind.fields}
          values={cut.values}
          unit={job.unit}
          cutters={cutters}
          asked={asked?.id === cut.id ? asked.n : undefined}
          // Another number of tabs spreads them anew.
          onChange={(key, value, f) =>
            setCutValue(cut.id, { [key]: value, ...(key === 'tabs.count' && { 'tabs.at': [] }) }, f.label, library)
          }
        />
        {kindOf(cut.kind).takesTabs?.(cut.values) && (
          <Typography variant="caption" component="p" sx={{ mt: 1, mb: 0, color: 'text.secondary' }}>
            Double-press beside an outline on the table to add a tab; drag it, or take it away with Delete.
          </Typography>
        )}
        {placedTabs > 0 && (
          <Typography variant="caption" sx={{ display: 'block', mt: 1, color: 'text.secondary' }}>
            {placedTabs} tabs stand where you put them.{' '}
            <Link component="button" onClick={() => setCutValue(cut.id, { 'tabs.at': [] }, 'tabs', library)}>
              Spread them evenly
            </Link>
          </Typography>
        )}
        {plan?.reach && plan.reach.length > 1 && (
          <Box
            component="ul"
            aria-label="Reach of the cutters"
            sx={{ listStyle: 'none', p: 0, m: 0, mt: 1.5, display: 'grid', gap: 0.5, fontSize: 13 }}
          >
            {plan.reach.map((r, i) => (
              <Box component="li" key={r.cutterId} sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
                <Box
                  aria-hidden="true"
                  sx={{
                    width: 14,
                    height: 14,
                    borderRadius: 0.75,
                    border: '1px solid',
                    borderColor: 'divider',
                    bgcolor: cutColour(job.cuts.indexOf(cut)),
                    opacity: reachTint(i),
                  }}
                />
                <Box sx={{ flex: 1 }}>{cutters.find((c) => c.id === r.cutterId)?.name}</Box>
                {areaText(r.area, job.unit)}
              </Box>
            ))}
          </Box>
        )}
        {plan && plan.unreached.area > 0.05 && (
          <Typography variant="body2" component="div" sx={{ mt: 1.25 }}>
            <Box component="span" sx={{ color: 'error.main', fontWeight: 600 }}>
              {plan.unreached.region.length} places
            </Box>{' '}
            ({areaText(plan.unreached.area, job.unit)}) are out of reach.{' '}
            {worst(plan.unreached.region).map((p, i) => (
              <Link
                key={i}
                component="button"
                sx={{ mr: 1 }}
                onClick={() => setView({ marked: { ...p, text: 'Out of reach' } })}
              >
                Place {i + 1}
              </Link>
            ))}
          </Typography>
        )}
        {plan && <Remarks cutId={cut.id} remarks={plan.remarks} />}
      </Group>
      <After turn={turns.speeds} once="speeds">
        {kind.cutters(cut.values).map((id) => {
          const cutter = cutters.find((c) => c.id === id);
          if (!cutter) return null;
          return <Speeds key={id} cut={cut} cutter={cutter} preset={presetOf(cutter, job, null)} />;
        })}
        <Group>
          <TextField
            label="Name of this cut"
            value={cut.name}
            onChange={(v) => changeCut(cut.id, 'Rename cut', (c) => void (c.name = v), `cut-name-${cut.id}`)}
          />
        </Group>
      </After>
    </>
  );
}
