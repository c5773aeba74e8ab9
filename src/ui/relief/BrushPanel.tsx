'use client';
import UndoRounded from '@mui/icons-material/UndoRounded';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { brushMirrors, brushTools, type BrushMirror, type BrushStroke, type BrushTool } from '@/core/relief/sculpt';
import type { Form } from '@/core/relief/stack';
import { choices } from '@/core/units/fields';
import { brushNow, dropStroke, setBrush } from '@/ui/actions/sculpt';
import { ChoiceField, LengthField, NumberField } from '@/ui/common/fields';
import { useOpenJobLater, useViewLater } from '@/ui/following';

/** The brush of a form that is sculpted, and what was done with it. */
export function BrushPanel({ form }: { form: Form }) {
  const job = useOpenJobLater((s) => s.job)!;
  const chosen = useViewLater((v) => v.brush);
  const brush = brushNow(job, chosen);
  const strokes = form.values.strokes as BrushStroke[];
  const moves = brush.tool === 'raise' || brush.tool === 'lower';
  return (
    <>
      <Typography sx={{ fontSize: 13, color: 'text.secondary', mb: 1.25 }}>
        {form.visible
          ? 'Draw on the plan. A pen that is pressed harder does more.'
          : 'It is left out: take it in by its eye to draw.'}
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1.25, alignItems: 'start' }}>
        <ChoiceField
          label="Brush"
          value={brush.tool}
          options={choices(brushTools)}
          onChange={(v) => setBrush({ tool: v as BrushTool })}
        />
        <LengthField
          label="Brush width"
          value={2 * brush.radius}
          unit={job.unit}
          min={0.1}
          max={1000}
          onChange={(v) => v !== null && setBrush({ radius: v / 2 })}
        />
        {moves ? (
          <LengthField
            label={brush.tool === 'raise' ? 'Raises by' : 'Lowers by'}
            value={brush.height}
            unit={job.unit}
            min={0}
            max={100}
            hint="Along the middle of a stroke"
            onChange={(v) => v !== null && setBrush({ height: v })}
          />
        ) : (
          <NumberField
            label={brush.tool === 'grab' ? 'Comes along' : 'Of the way'}
            value={brush.share * 100}
            unit="%"
            min={0}
            max={100}
            hint={brush.tool === 'grab' ? 'So far as the brush goes' : 'In one stroke'}
            onChange={(v) => setBrush({ share: v / 100 })}
          />
        )}
        <NumberField
          label="Soft edge"
          value={brush.soft * 100}
          unit="%"
          min={20}
          max={100}
          onChange={(v) => setBrush({ soft: v / 100 })}
        />
        {brush.tool === 'pull' && (
          <LengthField
            label="Pulls to"
            value={brush.level}
            unit={job.unit}
            min={-300}
            max={300}
            hint="Above the base of the stack"
            onChange={(v) => v !== null && setBrush({ level: v })}
          />
        )}
        <ChoiceField
          label="Mirrored"
          value={brush.mirror}
          options={choices(brushMirrors)}
          onChange={(v) => setBrush({ mirror: v as BrushMirror })}
        />
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', mt: 1.25 }}>
        <span>{strokes.length === 1 ? '1 stroke' : `${strokes.length || 'No'} strokes`}</span>
        <Button
          size="small"
          color="inherit"
          startIcon={<UndoRounded />}
          disabled={!strokes.length}
          onClick={() => dropStroke(form.id)}
        >
          Take the last stroke back
        </Button>
      </Box>
    </>
  );
}
