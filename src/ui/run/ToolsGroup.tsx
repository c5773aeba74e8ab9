'use client';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { cutterSchema } from '@/core/cutters/cutter';
import { choices } from '@/core/units/fields';
import { limitsOf } from '@/core/units/limits';
import type { OneSetup } from '@/core/job/job';
import { ChoiceField, NumberField } from '@/ui/common/fields';
import { Group } from '@/ui/common/SheetParts';
import { useOpenJobLater, useWorkLater } from '@/ui/following';

/** How the programs call the cutters: by the order of use, or by the slots in which they sit at the machine. */
export function ToolsGroup() {
  const job = useOpenJobLater((s) => s.job)!;
  const edit = useOpenJobLater((s) => s.edit);
  const tools = useWorkLater((w) => w.proof?.tools) ?? [];
  const findings = useWorkLater((w) => w.proof?.findings) ?? [];
  const bySlot = job.run.numbers === 'slots';
  return (
    <Group title="Cutters in the programs">
      <ChoiceField
        label="Tool numbers"
        value={job.run.numbers}
        options={choices({ order: 'In order of use', slots: 'Slots of the machine' })}
        onChange={(v) => edit('Change tool numbers', (j) => void (j.run.numbers = v as OneSetup['run']['numbers']))}
      />
      <Box
        component="ul"
        aria-label="Tool numbers"
        sx={{ listStyle: 'none', p: 0, m: 0, mt: 1.25, display: 'grid', gap: 0.75 }}
      >
        {tools.map(({ tool, cutterId }) => {
          const cutter = job.cutters.find((c) => c.id === cutterId);
          if (!cutter) return null;
          return (
            <Box
              component="li"
              key={cutterId}
              sx={{ display: 'flex', alignItems: 'center', minHeight: 26, gap: 1.25, fontSize: 13 }}
            >
              <Box sx={{ width: 34, fontFamily: '"IBM Plex Mono"', fontSize: 12.5 }}>T{tool}</Box>
              <Box sx={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
                {cutter.name}
              </Box>
              {bySlot && (
                <Box sx={{ width: 96 }}>
                  <NumberField
                    bare
                    unit="slot"
                    label={`Slot of ${cutter.name}`}
                    value={cutter.slot}
                    whole
                    {...limitsOf(cutterSchema, 'slot')}
                    onChange={(v) =>
                      edit('Change slot', (j) => void (j.cutters.find((c) => c.id === cutterId)!.slot = v))
                    }
                  />
                </Box>
              )}
            </Box>
          );
        })}
      </Box>
      {findings
        .filter((f) => f.check === 'slots')
        .map((f) => (
          <Typography key={f.text} role="alert" variant="body2" sx={{ color: 'error.main', mt: 1 }}>
            {f.text}
          </Typography>
        ))}
    </Group>
  );
}
