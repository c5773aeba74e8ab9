'use client';
import CloseRounded from '@mui/icons-material/CloseRounded';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Typography from '@mui/material/Typography';
import { radiusOf, type Cutter } from '@/core/cutters/cutter';
import { ChoiceField } from './fields';

interface Props {
  label: string;
  value: readonly string[];
  cutters: readonly Cutter[];
  hint?: string;
  /** What an empty list means; without it the last cutter stays. */
  optional?: string;
  onChange: (ids: string[]) => void;
}

/** A list of cutters, widest first, as they will be used. */
export function CuttersField({ label, value, cutters, hint, optional, onChange }: Props) {
  const chosen = value
    .map((id) => ({ id, cutter: cutters.find((c) => c.id === id) }))
    .sort((a, b) => (b.cutter ? radiusOf(b.cutter) : 0) - (a.cutter ? radiusOf(a.cutter) : 0));
  const more = cutters.filter((c) => !value.includes(c.id));
  return (
    <Box role="group" aria-label={label}>
      <Typography variant="caption" sx={{ display: 'block', color: 'text.secondary', mb: 0.5 }}>
        {label}
      </Typography>
      {!chosen.length && optional && (
        <Typography variant="body2" sx={{ mb: 0.75 }}>
          {optional}
        </Typography>
      )}
      {chosen.map(({ id, cutter }) => (
        <Box
          key={id}
          sx={{
            display: 'flex',
            alignItems: 'center',
            pl: 1.25,
            mb: 0.5,
            border: '1px solid',
            borderColor: 'var(--mui-palette-line)',
            borderRadius: 1.5,
            minHeight: 34,
            fontSize: 13,
          }}
        >
          <Box sx={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
            {cutter?.name ?? 'A cutter that is not here'}
          </Box>
          {(chosen.length > 1 || optional) && (
            <IconButton
              size="small"
              aria-label={`Take out ${cutter?.name ?? 'the cutter'}`}
              onClick={() => onChange(value.filter((v) => v !== id))}
            >
              <CloseRounded fontSize="inherit" />
            </IconButton>
          )}
        </Box>
      ))}
      <ChoiceField
        label={`Add to ${label.toLowerCase()}`}
        value=""
        options={[{ value: '', label: 'Choose one more' }, ...more.map((c) => ({ value: c.id, label: c.name }))]}
        hint={hint}
        onChange={(id) => id && onChange([...value, id])}
      />
    </Box>
  );
}
