'use client';
import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import { SnackbarProvider } from 'notistack';
import type { ReactNode } from 'react';
import { theme } from '@/ui/theme/theme';

export function Providers({ children }: { children: ReactNode }) {
  return (
    <ThemeProvider theme={theme} defaultMode="light" disableTransitionOnChange>
      <CssBaseline />
      <SnackbarProvider maxSnack={3} autoHideDuration={7000} anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }}>
        {children}
      </SnackbarProvider>
    </ThemeProvider>
  );
}
