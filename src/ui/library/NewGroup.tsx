import AddRounded from '@mui/icons-material/AddRounded';
import Button from '@mui/material/Button';
import OutlinedInput from '@mui/material/OutlinedInput';
import { useState } from 'react';
import { freeName } from '@/ui/actions/edits';

/** Makes a group that holds nothing yet: cutters are dragged into it. */
export function NewGroup({ taken, onMake }: { taken: readonly string[]; onMake: (name: string) => void }) {
  const [name, setName] = useState<string | null>(null);
  const make = () => {
    if (name?.trim())
      onMake(
        freeName(
          name.trim(),
          taken.map((t) => ({ name: t })),
        ),
      );
    setName(null);
  };
  if (name === null)
    return (
      <Button
        size="small"
        color="inherit"
        startIcon={<AddRounded />}
        onClick={() => setName('')}
        sx={{ ml: 1.25, color: 'text.secondary', fontSize: 12.5 }}
      >
        New group
      </Button>
    );
  return (
    <OutlinedInput
      size="small"
      autoFocus
      value={name}
      placeholder="Engraving / Cones"
      inputProps={{ 'aria-label': 'Name of the new group' }}
      onChange={(e) => setName(e.target.value)}
      onBlur={make}
      onKeyDown={(e) => {
        if (e.key === 'Enter') make();
        else if (e.key === 'Escape') {
          e.stopPropagation();
          setName(null);
        }
      }}
      sx={{ mx: 1.25, my: 0.5, width: 'calc(100% - 20px)' }}
    />
  );
}
