import { closeSnackbar, enqueueSnackbar } from 'notistack';
import { createElement } from 'react';

/** A way on that a notice offers. */
export interface Way {
  readonly words: string;
  readonly run: () => void;
}

const style = {
  color: 'inherit',
  background: 'none',
  border: 0,
  font: 'inherit',
  fontWeight: 600,
  padding: '8px 10px',
  minHeight: 44,
  cursor: 'pointer',
};

/** A short notice at the edge of the window, with what can be done about it. */
export const tell = (kind: 'info' | 'success' | 'error', text: string, way?: Way): void =>
  void enqueueSnackbar(text, {
    variant: kind,
    autoHideDuration: kind === 'error' ? 12000 : 6000,
    action:
      way &&
      ((key) =>
        createElement('button', { type: 'button', style, onClick: () => (closeSnackbar(key), way.run()) }, way.words)),
  });

/** Puts what is known of a fault on the clipboard, for whoever mends it. Nothing is sent anywhere. */
export function copyDetails(error: Error): void {
  const text = [
    `Mirvak, ${new Date().toISOString()}`,
    navigator.userAgent,
    `${error.name}: ${error.message}`,
    error.stack ?? '',
  ].join('\n');
  const kept = navigator.clipboard?.writeText(text) ?? Promise.reject(new Error('no clipboard'));
  void kept.then(
    () => tell('success', 'The details are on the clipboard.'),
    () => tell('error', 'The browser does not let Mirvak use the clipboard.'),
  );
}
