import { useEffect, useState, type RefObject } from 'react';

/** The size of an element in CSS pixels, as it changes. */
export function useSize(ref: RefObject<HTMLElement | null>): { width: number; height: number } {
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    const el = ref.current;
    if (!el) return;
    const o = new ResizeObserver(([entry]) =>
      setSize({ width: entry.contentRect.width, height: entry.contentRect.height }),
    );
    o.observe(el);
    return () => o.disconnect();
  }, [ref]);
  return size;
}
