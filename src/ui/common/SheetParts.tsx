'use client';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useEffect, useRef, type ReactNode } from 'react';

/** The head of a sheet: its name, a quiet remark, and actions. */
export function SheetHead({ title, remark, actions }: { title: string; remark?: ReactNode; actions?: ReactNode }) {
  const heading = useRef<HTMLHeadingElement>(null);
  // Each stage has a head of its own. Who came by the rail goes on here; who works on the table stays there.
  useEffect(() => {
    // When the sheet has been laid out and painted: a focus asks for the layout, which would be worked out in one go with it.
    let task: ReturnType<typeof setTimeout>;
    const frame = requestAnimationFrame(() => {
      task = setTimeout(() => {
        const at = document.activeElement;
        if (!at || at === document.body || at.closest('nav')) heading.current?.focus({ preventScroll: true });
      }, 0);
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(task);
    };
  }, []);
  return (
    <Box data-sheet-head sx={{ display: 'flex', alignItems: 'baseline', gap: 1, px: 2, pt: 1.75, pb: 1.25 }}>
      <Typography ref={heading} variant="h2" component="h2" tabIndex={-1} sx={{ outline: 'none' }}>
        {title}
      </Typography>
      <Typography
        variant="body2"
        sx={{ color: 'text.secondary', flex: 1, whiteSpace: 'nowrap', overflow: 'hidden', textOverflow: 'ellipsis' }}
      >
        {remark}
      </Typography>
      {actions}
    </Box>
  );
}

export function Group({ title, children, action }: { title?: string; children: ReactNode; action?: ReactNode }) {
  return (
    <Box component="section" aria-label={title} sx={{ px: 2, py: 1.5, borderTop: '1px solid', borderColor: 'divider' }}>
      {title && (
        <Box sx={{ display: 'flex', alignItems: 'center', mb: 1 }}>
          <Typography variant="h3" component="h3" sx={{ flex: 1 }}>
            {title}
          </Typography>
          {action}
        </Box>
      )}
      {children}
    </Box>
  );
}

export function Empty({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box
      sx={{
        mx: 2,
        my: 1,
        p: 2,
        border: '1px dashed',
        borderColor: 'var(--mui-palette-line)',
        borderRadius: 2,
        color: 'text.secondary',
      }}
    >
      <Typography variant="h3" component="p" sx={{ color: 'text.primary', mb: 0.5 }}>
        {title}
      </Typography>
      <Typography variant="body2" component="div">
        {children}
      </Typography>
    </Box>
  );
}
