import Button from '@mui/material/Button';
import { closeSnackbar, enqueueSnackbar } from 'notistack';

/** A short notice at the edge of the window, with what can be done about it. */
export const tell = (kind: 'info' | 'success' | 'error', text: string, way?: { readonly words: string; readonly run: () => void }): void =>
  void enqueueSnackbar(text, {
    variant: kind,
    autoHideDuration: kind === 'error' ? 12000 : 6000,
    action: way
      ? (key) => (
          <Button
            color="inherit"
            onClick={() => {
              closeSnackbar(key);
              way.run();
            }}
          >
            {way.words}
          </Button>
        )
      : undefined,
  });
