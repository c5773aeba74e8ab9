'use client';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';

/** The head of a sheet: its name, a quiet remark, and actions. */
export function SheetHead({ title, remark, actions }: { title: string; remark?: ReactNode; actions?: ReactNode }) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1, px: 2, pt: 1.75, pb: 1.25 }}>
      <Typography variant="h2" component="h2">
        {title}
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', flex: 1, whiteSpace: 'nowrap', overflow: 'hidden', textOverflow: 'ellipsis' }}>
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
    <Box sx={{ mx: 2, my: 1, p: 2, border: '1px dashed', borderColor: 'var(--mui-palette-line)', borderRadius: 2, color: 'text.secondary' }}>
      <Typography variant="h3" component="p" sx={{ color: 'text.primary', mb: 0.5 }}>
        {title}
      </Typography>
      <Typography variant="body2" component="div">
        {children}
      </Typography>
    </Box>
  );
}
