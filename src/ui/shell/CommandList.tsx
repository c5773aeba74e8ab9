'use client';
import Box from '@mui/material/Box';
import Dialog from '@mui/material/Dialog';
import InputBase from '@mui/material/InputBase';
import { useMemo, useState } from 'react';
import { actions } from '@/ui/actions/registry';
import { setView, useView } from '@/ui/view';

/** Every action by name, with its shortcut; typing narrows, Enter runs. */
export function CommandList() {
  const open = useView((v) => v.commands);
  return (
    <Dialog
      open={open}
      onClose={() => setView({ commands: false })}
      maxWidth="sm"
      fullWidth
      slotProps={{ paper: { 'aria-label': 'All actions' }, container: { sx: { alignItems: 'flex-start', pt: '8vh' } } }}
    >
      {open && <List />}
    </Dialog>
  );
}

function List() {
  const [text, setText] = useState('');
  const [at, setAt] = useState(0);
  const found = useMemo(() => {
    const words = text.toLowerCase().split(/\s+/).filter(Boolean);
    return actions.filter((a) => a.id !== 'commands' && words.every((w) => a.name.toLowerCase().includes(w)));
  }, [text]);
  const run = (i: number) => {
    const a = found[i];
    if (!a || (a.enabled && !a.enabled())) return;
    setView({ commands: false });
    a.run();
  };
  return (
    <Box
      onKeyDown={(e) => {
        if (e.key === 'ArrowDown') setAt((i) => Math.min(found.length - 1, i + 1));
        else if (e.key === 'ArrowUp') setAt((i) => Math.max(0, i - 1));
        else if (e.key === 'Enter') run(at);
        else return;
        e.preventDefault();
      }}
    >
      <InputBase
        autoFocus
        fullWidth
        placeholder="What do you want to do?"
        inputProps={{
          'aria-label': 'Search the actions',
          role: 'combobox',
          'aria-expanded': true,
          'aria-controls': 'action-list',
          'aria-activedescendant': found[at] ? `action-${found[at].id}` : undefined,
        }}
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          setAt(0);
        }}
        sx={{ px: 2.5, py: 1.5, fontSize: 17, borderBottom: '1px solid', borderColor: 'divider' }}
      />
      <Box id="action-list" role="listbox" aria-label="Actions" sx={{ maxHeight: '55vh', overflowY: 'auto', py: 0.75 }}>
        {found.map((a, i) => {
          const off = a.enabled ? !a.enabled() : false;
          return (
            <Box
              key={a.id}
              id={`action-${a.id}`}
              role="option"
              aria-selected={i === at}
              aria-disabled={off}
              onMouseMove={() => setAt(i)}
              onClick={() => run(i)}
              ref={(el: HTMLElement | null) => {
                if (i === at) el?.scrollIntoView({ block: 'nearest' });
              }}
              sx={{
                display: 'flex',
                px: 2.5,
                py: 0.85,
                cursor: off ? 'default' : 'pointer',
                color: off ? 'text.disabled' : 'text.primary',
                bgcolor: i === at ? 'var(--mui-palette-wash)' : undefined,
              }}
            >
              <Box sx={{ flex: 1 }}>{a.name}</Box>
              <Box component="kbd" sx={{ fontFamily: 'inherit', color: 'text.secondary', fontSize: 12 }}>
                {a.shortcut?.replaceAll('+', ' ').replace('Arrow', '')}
              </Box>
            </Box>
          );
        })}
        {!found.length && (
          <Box sx={{ px: 2.5, py: 2, color: 'text.secondary' }}>Nothing is called that. Try another word.</Box>
        )}
      </Box>
    </Box>
  );
}
