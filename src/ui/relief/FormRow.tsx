'use client';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import ChevronRightRounded from '@mui/icons-material/ChevronRightRounded';
import ContentCopyRounded from '@mui/icons-material/ContentCopyRounded';
import DeleteOutlineRounded from '@mui/icons-material/DeleteOutlineRounded';
import ExpandMoreRounded from '@mui/icons-material/ExpandMoreRounded';
import VisibilityOffOutlined from '@mui/icons-material/VisibilityOffOutlined';
import VisibilityOutlined from '@mui/icons-material/VisibilityOutlined';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import { useEffect, useRef } from 'react';
import { meetings } from '@/core/relief/form';
import { formKindOf } from '@/core/relief/registry';
import type { Form } from '@/core/relief/stack';
import { lengthText } from '@/core/units/length';
import { copyForm, deleteForm } from '@/ui/actions/relief';
import { changeForm } from '@/ui/actions/edits';
import { paintLook } from '@/ui/table/shaded';
import { setView } from '@/ui/view';
import { useOpenJobLater, useViewLater, useWorkLater } from '@/ui/following';

const LOOK = { width: 44, height: 36 };

/** How a form looks by itself, in the colour of the blank. */
function FormLook({ form, counts }: { form: Form; counts: boolean }) {
  const look = useWorkLater((w) => w.relief?.shaped.looks[form.id] ?? null);
  const material = useOpenJobLater((s) => s.job!.blank.material);
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (look?.cols && canvas.current) paintLook(canvas.current, look, material);
  }, [look, material]);
  return (
    <Box sx={{ ...LOOK, flexShrink: 0, display: 'grid', placeItems: 'center', opacity: counts ? 1 : 0.4 }}>
      {!!look?.cols && (
        <Box component="canvas" ref={canvas} aria-hidden sx={{ maxWidth: LOOK.width, maxHeight: LOOK.height }} />
      )}
    </Box>
  );
}

/** One form of the stack: its name, what it is and how it meets what lies under it. */
export function FormRow({ form, held, within }: { form: Form; held: number; within: Form | null }) {
  const open = useViewLater((v) => v.formId === form.id);
  const remark = useWorkLater((w) => w.relief?.shaped.remarks[form.id] ?? '');
  const kind = formKindOf(form.kind);
  const pixel = useWorkLater((w) => w.relief?.shaped.pixels[form.id]);
  const unit = useOpenJobLater((s) => s.job!.unit);
  const folded = useViewLater((v) => v.foldedForms.includes(form.id));
  const counts = form.visible && (within?.visible ?? true);
  const what = kind.holds ? (held === 1 ? '1 form' : `${held || 'No'} forms`) : kind.name;
  const how = kind.adjusts ? 'on all under it' : meetings[form.meets].toLowerCase();
  const pixels = pixel ? [`pixels of ${lengthText(pixel, unit, unit === 'mm' ? 2 : 4)}`] : [];
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: form.id });
  const choose = () => setView({ formId: open ? null : form.id, ...(form.items.length && { picked: form.items }) });
  return (
    <Box
      component="li"
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      sx={{
        position: 'relative',
        zIndex: isDragging ? 2 : undefined,
        display: 'flex',
        alignItems: 'center',
        bgcolor: 'background.paper',
        border: '1px solid',
        borderColor: open ? 'primary.main' : 'divider',
        boxShadow: open ? '0 0 0 1px var(--mui-palette-primary-main)' : 'none',
        borderRadius: 2,
        ml: within ? 2.5 : 0,
      }}
    >
      {kind.holds && held > 0 && (
        <IconButton
          size="small"
          aria-label={`${folded ? 'Show' : 'Hide'} what is in ${form.name}`}
          aria-expanded={!folded}
          onClick={() =>
            setView((v) => ({
              foldedForms: folded ? v.foldedForms.filter((id) => id !== form.id) : [...v.foldedForms, form.id],
            }))
          }
        >
          {folded ? <ChevronRightRounded fontSize="small" /> : <ExpandMoreRounded fontSize="small" />}
        </IconButton>
      )}
      <Box
        {...attributes}
        {...listeners}
        role="button"
        aria-pressed={open}
        onClick={choose}
        onKeyDown={(e) => {
          if (e.key === 'Enter') choose();
          else listeners?.onKeyDown?.(e);
        }}
        sx={{
          flex: 1,
          minWidth: 0,
          display: 'flex',
          alignItems: 'center',
          gap: 1,
          pl: 0.75,
          pr: 1,
          py: 0.5,
          cursor: 'pointer',
          color: counts ? undefined : 'text.secondary',
          borderRadius: 2,
          '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)', outlineOffset: 2 },
        }}
      >
        <FormLook form={form} counts={counts} />
        <Box sx={{ minWidth: 0 }}>
          <Box
            sx={{ fontWeight: 600, fontSize: 14, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
          >
            {form.name}
          </Box>
          <Box sx={{ fontSize: 12.5, color: remark ? 'error.main' : 'text.secondary' }}>
            {remark || [what, how, ...pixels].join(' \u00b7 ')}
          </Box>
        </Box>
      </Box>
      <Tooltip title={form.visible ? 'Leave it out' : 'Take it in'}>
        <IconButton
          size="small"
          aria-label={`${form.visible ? 'Leave out' : 'Take in'} ${form.name}`}
          aria-pressed={!form.visible}
          onClick={() =>
            changeForm(
              form.id,
              form.visible ? 'Leave out a form' : 'Take in a form',
              (f) => void (f.visible = !f.visible),
            )
          }
        >
          {form.visible ? <VisibilityOutlined fontSize="small" /> : <VisibilityOffOutlined fontSize="small" />}
        </IconButton>
      </Tooltip>
      <Tooltip title="Copy">
        <IconButton size="small" aria-label={`Copy ${form.name}`} onClick={() => copyForm(form.id)}>
          <ContentCopyRounded fontSize="small" />
        </IconButton>
      </Tooltip>
      <Tooltip title="Delete">
        <IconButton
          size="small"
          aria-label={`Delete ${form.name}`}
          onClick={() => deleteForm(form.id)}
          sx={{ mr: 0.5 }}
        >
          <DeleteOutlineRounded fontSize="small" />
        </IconButton>
      </Tooltip>
    </Box>
  );
}
