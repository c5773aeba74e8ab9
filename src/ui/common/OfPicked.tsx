'use client';
import type { ReactNode } from 'react';
import { useView, type View } from '@/ui/view';

/**
 * The form of what is picked. As sheets follow at the pace of the window, that of the thing before is still there for a moment when
 * another one is picked: it takes nothing then, for what is typed is meant for the other.
 */
export function OfPicked<S>({
  which,
  shown,
  children,
}: {
  /** What is picked now. */
  readonly which: (v: View) => S;
  /** What was picked when the form was drawn. */
  readonly shown: S;
  readonly children: ReactNode;
}) {
  const now = useView(which);
  return <div inert={!Object.is(now, shown)}>{children}</div>;
}
