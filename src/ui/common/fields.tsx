'use client';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import InputAdornment from '@mui/material/InputAdornment';
import ListSubheader from '@mui/material/ListSubheader';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import OutlinedInput from '@mui/material/OutlinedInput';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { startTransition, useId, useRef, useState, type ReactNode } from 'react';
import { formatFine, formatRoughly, parseLength, parseNumber, type Unit } from '@/core/units/length';

/** Text that is read out, not shown. */
export const readOut = {
  position: 'absolute',
  width: 1,
  height: 1,
  overflow: 'hidden',
  clipPath: 'inset(50%)',
  whiteSpace: 'nowrap',
} as const;

/** Shows what was chosen at once, while the job and the window follow. */
function useDraft<T>(value: T, onChange: (v: T) => void): [T, (v: T) => void] {
  const [draft, setDraft] = useState<{ value: T } | null>(null);
  const change = (v: T) => {
    setDraft({ value: v });
    onChange(v);
    startTransition(() => setDraft(null));
  };
  return [draft ? draft.value : value, change];
}

export function Labelled({
  id,
  label,
  bare,
  hint,
  error,
  children,
}: {
  id: string;
  label: string;
  bare?: boolean;
  hint?: ReactNode;
  error?: string;
  children: ReactNode;
}) {
  return (
    <Box sx={{ minWidth: 0 }}>
      <Typography
        component="label"
        id={`${id}-label`}
        htmlFor={id}
        variant="caption"
        sx={
          bare
            ? readOut
            : {
                display: 'block',
                color: 'text.secondary',
                mb: 0.4,
                whiteSpace: 'nowrap',
                overflow: 'hidden',
                textOverflow: 'ellipsis',
              }
        }
      >
        {label}
      </Typography>
      {children}
      {(error || hint) && (
        <Typography
          id={`${id}-says`}
          variant="caption"
          role={error ? 'alert' : undefined}
          sx={{ display: 'block', mt: 0.4, color: error ? 'error.main' : 'text.secondary', lineHeight: 1.3 }}
        >
          {error || hint}
        </Typography>
      )}
    </Box>
  );
}

interface ValueFieldProps {
  label: string;
  text: string;
  unit: string;
  hint?: ReactNode;
  placeholder?: string;
  /** Reads what was typed: an error to show, or null when it was taken. */
  take: (text: string) => string | null;
  marked?: boolean;
  /** The label is read out, not shown: what is beside the field says what it is. */
  bare?: boolean;
}

/** A field that is taken on Enter or on leaving it; Escape puts the old value back; arrows step. */
function ValueField({ label, text, unit, hint, placeholder, take, marked, bare }: ValueFieldProps) {
  const id = useId();
  const [draft, setDraft] = useState<string | null>(null);
  const [error, setError] = useState('');
  // What was entered is not entered again when the field is left before the window has followed.
  const entered = useRef<string | null>(null);
  const commit = () => {
    if (draft === null || draft === entered.current) return;
    const e = take(draft);
    setError(e ?? '');
    entered.current = e === null ? draft : null;
    // The typed text stands until the window has followed the job.
    if (e === null) startTransition(() => setDraft(null));
  };
  return (
    <Labelled id={id} label={label} bare={bare} hint={hint} error={error}>
      <OutlinedInput
        id={id}
        fullWidth
        value={draft ?? text}
        placeholder={placeholder}
        error={!!error}
        inputProps={{
          'aria-describedby': error || hint ? `${id}-says` : undefined,
          'aria-invalid': error ? true : undefined,
        }}
        autoComplete="off"
        onChange={(e) => {
          entered.current = null;
          setDraft(e.target.value);
          setError('');
        }}
        onFocus={(e) => e.target.select()}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter') commit();
          else if (e.key === 'Escape') {
            e.stopPropagation();
            setDraft(null);
            setError('');
          }
        }}
        endAdornment={
          unit && (
            <InputAdornment position="end" sx={{ '& p': { fontSize: 12 } }}>
              {unit}
            </InputAdornment>
          )
        }
        sx={marked ? { borderLeft: '3px solid var(--mui-palette-brass)' } : undefined}
      />
    </Labelled>
  );
}

/** What no field goes beyond. */
const FARTHEST = 1e6;

interface LengthProps {
  label: string;
  value: number | null;
  unit: Unit;
  /** A length per minute. */
  rate?: boolean;
  /** Its label and its unit are read out, not shown: what is beside the field says them. Shown within a ten thousandth of itself. */
  bare?: boolean;
  /** What a typed percentage is a share of, mm. */
  share?: number;
  min?: number;
  max?: number;
  optional?: string;
  hint?: ReactNode;
  marked?: boolean;
  onChange: (mm: number | null) => void;
}

export function LengthField(p: LengthProps) {
  const format = p.rate || p.bare ? formatRoughly : formatFine;
  const unit = p.rate ? `${p.unit}/min` : p.unit;
  const range = (v: number) => `${format(v, p.unit)} ${unit}`;
  return (
    <ValueField
      label={p.bare ? `${p.label}, ${unit}` : p.label}
      bare={p.bare}
      text={p.value === null ? '' : format(p.value, p.unit)}
      placeholder={p.value === null ? p.optional : undefined}
      unit={p.bare ? '' : unit}
      hint={p.hint}
      marked={p.marked}
      take={(text) => {
        if (p.optional !== undefined && text.trim() === '') {
          p.onChange(null);
          return null;
        }
        if (p.share !== undefined && /%\s*$/.test(text)) {
          const part = parseNumber(text);
          if (!part.ok) return part.error;
          text = `${(part.value / 100) * p.share}mm`;
        }
        const r = parseLength(p.rate ? text.replace(/\s*\/\s*min\s*$/i, '') : text, p.unit);
        if (!r.ok) return r.error;
        // A place without limits of its own is within a kilometre, as in the file.
        const { min = -FARTHEST, max = FARTHEST } = p;
        if (r.mm < min - 1e-9) return `At least ${range(min)}.`;
        if (r.mm > max + 1e-9) return `At most ${range(max)}.`;
        // What a unit rounds beyond a limit is the limit.
        const mm = Math.min(max, Math.max(min, r.mm));
        if (p.value === null || Math.abs(mm - p.value) > 1e-9) p.onChange(mm);
        return null;
      }}
    />
  );
}

export function NumberField(p: {
  label: string;
  value: number;
  unit?: string;
  min?: number;
  max?: number;
  whole?: boolean;
  hint?: ReactNode;
  marked?: boolean;
  bare?: boolean;
  onChange: (v: number) => void;
}) {
  return (
    <ValueField
      label={p.label}
      text={String(+p.value.toFixed(4))}
      unit={p.unit ?? ''}
      hint={p.hint}
      marked={p.marked}
      bare={p.bare}
      take={(text) => {
        const r = parseNumber(text);
        if (!r.ok) return r.error;
        if (p.whole && !Number.isInteger(r.value)) return 'A whole number, please.';
        const { min = -FARTHEST, max = FARTHEST } = p;
        if (r.value < min) return `At least ${min}.`;
        if (r.value > max) return `At most ${max}.`;
        if (r.value !== p.value) p.onChange(r.value);
        return null;
      }}
    />
  );
}

/** A choice of one; options that follow each other with the same `group` stand under its name. */
export function ChoiceField(p: {
  label: string;
  value: string;
  options: readonly { value: string; label: string; group?: string }[];
  hint?: ReactNode;
  onChange: (v: string) => void;
}) {
  const id = useId();
  const [value, change] = useDraft(p.value, p.onChange);
  return (
    <Labelled id={id} label={p.label} hint={p.hint}>
      <Select
        fullWidth
        displayEmpty
        labelId={`${id}-label`}
        SelectDisplayProps={{ 'aria-describedby': p.hint ? `${id}-says` : undefined }}
        value={p.options.some((o) => o.value === value) ? value : ''}
        inputProps={{ id }}
        onChange={(e) => change(e.target.value)}
        MenuProps={{ slotProps: { paper: { sx: { maxHeight: 360 } } } }}
      >
        {p.options.flatMap((o, i) => [
          ...(o.group && o.group !== p.options[i - 1]?.group
            ? [
                <ListSubheader
                  key={`in ${o.group} ${i}`}
                  sx={{ lineHeight: '30px', fontSize: 12, bgcolor: 'background.paper' }}
                >
                  {o.group}
                </ListSubheader>,
              ]
            : []),
          <MenuItem key={o.value} value={o.value} dense>
            {o.label}
          </MenuItem>,
        ])}
      </Select>
    </Labelled>
  );
}

export function FlagField(p: { label: string; value: boolean; onChange: (v: boolean) => void }) {
  const [value, change] = useDraft(p.value, p.onChange);
  return (
    <FormControlLabel
      sx={{ ml: -0.75, '& .MuiFormControlLabel-label': { fontSize: 13 } }}
      control={<Checkbox size="small" checked={value} onChange={(e) => change(e.target.checked)} />}
      label={p.label}
    />
  );
}

/** So many lines are seen at once; beyond, the field scrolls. */
const MOST_LINES = 6;

/** Text that is taken as it is typed. */
export function TextField(p: { label: string; value: string; lines?: number; onChange: (v: string) => void }) {
  const id = useId();
  const [value, change] = useDraft(p.value, p.onChange);
  // The browser gives the field its height: one that measures its text has the whole window laid out anew at each key.
  const lines = p.lines && {
    multiline: true,
    inputComponent: 'textarea' as const,
    inputProps: { rows: Math.min(MOST_LINES, Math.max(p.lines, value.split('\n').length)) },
    sx: {
      p: 0,
      '& textarea': {
        p: '7px 10px',
        fieldSizing: 'content',
        boxSizing: 'border-box',
        minHeight: `calc(${p.lines}lh + 14px)`,
        maxHeight: `calc(${MOST_LINES}lh + 14px)`,
      },
    },
  };
  return (
    <Labelled id={id} label={p.label}>
      <OutlinedInput id={id} fullWidth value={value} onChange={(e) => change(e.target.value)} {...lines} />
    </Labelled>
  );
}
