import { useEffect } from 'react';

/** While something would be lost with the window, the browser asks before it closes. */
export function useAskBeforeClosing(asks: boolean): void {
  useEffect(() => {
    if (!asks) return;
    const close = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener('beforeunload', close);
    return () => window.removeEventListener('beforeunload', close);
  }, [asks]);
}
