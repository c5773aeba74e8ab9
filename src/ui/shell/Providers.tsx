'use client';
import CssBaseline from '@mui/material/CssBaseline';
import { styled, ThemeProvider } from '@mui/material/styles';
import { MaterialDesignContent, SnackbarProvider } from 'notistack';
import type { ReactNode } from 'react';
import { BusyBar } from './BusyBar';
import { Kept } from './Kept';
import { theme } from '@/ui/theme/theme';

/** Notices: ink, or the colour of what they say, dark enough for white words in both schemes. */
const Notice = styled(MaterialDesignContent)({
  '&.notistack-MuiContent': { borderRadius: 10, fontFamily: 'inherit' },
  '&.notistack-MuiContent-default, &.notistack-MuiContent-info': { backgroundColor: '#33434a' },
  '&.notistack-MuiContent-success': { backgroundColor: '#1f625d' },
  '&.notistack-MuiContent-warning': { backgroundColor: '#7a560f' },
  '&.notistack-MuiContent-error': { backgroundColor: '#a5311f' },
});
const notices = { default: Notice, info: Notice, success: Notice, warning: Notice, error: Notice };

export function Providers({ children }: { children: ReactNode }) {
  return (
    <ThemeProvider theme={theme} defaultMode="light" disableTransitionOnChange>
      <CssBaseline />
      <SnackbarProvider
        Components={notices}
        maxSnack={3}
        autoHideDuration={7000}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }}
      >
        <Kept>{children}</Kept>
        <BusyBar />
      </SnackbarProvider>
    </ThemeProvider>
  );
}
