'use client';
import Box from '@mui/material/Box';
import { useMemo, useState } from 'react';

const ROW = 18;
const VIEW = 250;

/** Program text, however long: only the lines in view are drawn. */
export function ProgramText({ text }: { text: string }) {
  const [top, setTop] = useState(0);
  // Starts of lines, found once; a million lines are one array of numbers.
  const starts = useMemo(() => {
    const out = [0];
    for (let i = text.indexOf('\n'); i >= 0 && i < text.length - 1; i = text.indexOf('\n', i + 1)) out.push(i + 1);
    return out;
  }, [text]);
  const first = Math.max(0, Math.floor(top / ROW) - 4);
  const last = Math.min(starts.length, first + Math.ceil(VIEW / ROW) + 8);
  return (
    <Box tabIndex={0} role="region" aria-label="Program text" onScroll={(e) => setTop(e.currentTarget.scrollTop)} sx={{ height: VIEW, overflow: 'auto', border: '1px solid', borderColor: 'divider', borderRadius: 2, bgcolor: 'background.paper' }}>
      <Box sx={{ height: starts.length * ROW, position: 'relative' }}>
        <Box component="pre" sx={{ position: 'absolute', top: first * ROW, m: 0, fontSize: 12, lineHeight: `${ROW}px`, px: 1 }}>
          {Array.from({ length: last - first }, (_, k) => {
            const i = first + k;
            return (
              <div key={i}>
                <Box component="span" sx={{ color: 'text.secondary', opacity: 0.75, display: 'inline-block', minWidth: 46, mr: 1, textAlign: 'right', userSelect: 'none' }}>
                  {i + 1}
                </Box>
                {text.slice(starts[i], (starts[i + 1] ?? text.length + 1) - 1)}
              </div>
            );
          })}
        </Box>
      </Box>
    </Box>
  );
}
