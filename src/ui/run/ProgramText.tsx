'use client';
import Box from '@mui/material/Box';
import { useEffect, useMemo, useRef, useState } from 'react';
import { ProgramLines } from '@/core/program/programLines';
import type { Chunks } from '@/core/program/text';
import { useView } from '@/ui/view';
import { lightLine } from './lit';

const ROW = 18;
const VIEW = 250;
/** Browsers draw nothing taller than some ten million pixels: longer texts are scrolled in proportion. */
const TALLEST = 8e6;

/** Program text, however long: only the lines in view are drawn. The picked line is lit on the table, and the other way round. */
export function ProgramText({ file, chunks, breaks }: { file: string; chunks: Chunks; breaks: readonly number[] }) {
  const [top, setTop] = useState(0);
  const box = useRef<HTMLDivElement>(null);
  const lit = useView((v) => (v.lit?.file === file ? v.lit.line : null));
  const lines = useMemo(() => new ProgramLines(chunks, breaks), [chunks, breaks]);
  const full = lines.count * ROW;
  const shown = Math.min(full, TALLEST);
  const stretch = shown > VIEW ? (full - VIEW) / (shown - VIEW) : 1;
  const first = Math.max(0, Math.floor((top * stretch) / ROW) - 4);
  const last = Math.min(lines.count, first + Math.ceil(VIEW / ROW) + 8);
  useEffect(() => {
    const el = box.current;
    if (lit === null || !el) return;
    const at = (lit - 1) * ROW;
    const now = el.scrollTop * stretch;
    if (at < now || at > now + VIEW - ROW) el.scrollTop = Math.max(0, at - VIEW / 2) / stretch;
  }, [lit, stretch]);
  const pick = (line: number) => void lightLine(file, Math.min(lines.count, Math.max(1, line)));
  return (
    <Box
      ref={box}
      tabIndex={0}
      role="listbox"
      aria-label="Program text"
      onScroll={(e) => setTop(e.currentTarget.scrollTop)}
      onKeyDown={(e) => {
        const step = { ArrowDown: 1, ArrowUp: -1, PageDown: 12, PageUp: -12 }[e.key];
        if (!step) return;
        e.preventDefault();
        e.stopPropagation();
        pick((lit ?? 0) + step);
      }}
      sx={{
        height: VIEW,
        overflow: 'auto',
        border: '1px solid',
        borderColor: 'divider',
        borderRadius: 2,
        bgcolor: 'background.paper',
      }}
    >
      <Box sx={{ height: shown, position: 'relative' }}>
        <Box
          component="pre"
          sx={{
            position: 'absolute',
            top: top - (top * stretch - first * ROW),
            m: 0,
            minWidth: '100%',
            fontSize: 12,
            lineHeight: `${ROW}px`,
          }}
        >
          {lines.slice(first, last).map((words, k) => {
            const i = first + k;
            return (
              <Box
                component="div"
                key={i}
                role="option"
                aria-selected={lit === i + 1}
                onClick={() => pick(i + 1)}
                sx={{
                  px: 1,
                  cursor: 'pointer',
                  bgcolor: lit === i + 1 ? 'var(--mui-palette-wash)' : undefined,
                  '&:hover': { bgcolor: 'var(--mui-palette-wash)' },
                }}
              >
                <Box
                  component="span"
                  sx={{
                    color: 'text.secondary',
                    display: 'inline-block',
                    minWidth: 46,
                    mr: 1,
                    textAlign: 'right',
                    userSelect: 'none',
                  }}
                >
                  {i + 1}
                </Box>
                {words}
              </Box>
            );
          })}
        </Box>
      </Box>
    </Box>
  );
}
