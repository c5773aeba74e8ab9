import { enqueueSnackbar } from 'notistack';

/** A short notice at the edge of the window. */
export const tell = (kind: 'info' | 'success' | 'error', text: string): void => void enqueueSnackbar(text, { variant: kind, autoHideDuration: kind === 'error' ? 12000 : 6000 });
