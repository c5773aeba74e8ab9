'use client';
import { usePathname } from 'next/navigation';
import { Workbench } from './Workbench';

/** The job that the address names: a page that the browser has kept is the same for all of them. */
export function JobPage() {
  const id = decodeURIComponent(usePathname().split('/')[2] ?? '');
  return <Workbench id={id} />;
}
