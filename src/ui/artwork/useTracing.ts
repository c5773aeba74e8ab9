import { useEffect, useRef, useState } from 'react';
import { artworkHelper } from '@/compute/artworkHelper';
import { isCancelled } from '@/compute/workerHandle';
import type { Picture } from '@/core/artwork/trace/colours';
import type { TraceOptions } from '@/core/artwork/trace/options';
import type { TracedLayer } from '@/core/artwork/trace/trace';
import { saysOf } from '@/core/units/says';

export interface Tracing {
  readonly layers: TracedLayer[] | null;
  /** The share that is done while it runs. */
  readonly done: number | null;
  readonly error: string;
}

/** Traces a picture in a worker whenever the values change; what is running is given up for it. */
export function useTracing(picture: Picture | null, options: TraceOptions): Tracing {
  const [state, setState] = useState<Tracing & { of: TraceOptions | null }>({
    layers: null,
    done: 0,
    error: '',
    of: null,
  });
  const asked = useRef(0);
  useEffect(() => {
    if (!picture) return;
    const mine = ++asked.current;
    const told = (s: Partial<Tracing>) =>
      mine === asked.current && setState((was) => ({ ...was, error: '', ...s, of: options }));
    const t = setTimeout(async () => {
      const helper = artworkHelper();
      helper.cancel();
      told({ done: 0 });
      try {
        const layers = await helper.ask((api) =>
          api.trace(
            helper.next(),
            picture,
            options,
            helper.hearing((done) => void told({ done })),
          ),
        );
        told({ layers, done: null });
      } catch (e) {
        if (!isCancelled(e))
          told({
            error: `The picture was not traced. ${saysOf(e, 'Try fewer colours, or a smaller picture.')}`,
            done: null,
          });
      }
    }, 120);
    return () => clearTimeout(t);
  }, [picture, options]);
  // What runs when the dialog closes is no longer wanted.
  useEffect(
    () => () => {
      asked.current++;
      artworkHelper().cancel();
    },
    [],
  );
  // Outlines of the values before are seen, but not done: nobody is to place them in the place of what is asked for now.
  return state.of === options ? state : { layers: state.layers, done: state.done ?? 0, error: '' };
}
