'use client';
import dynamic from 'next/dynamic';
import { usePathname } from 'next/navigation';
import { Opening } from './Opening';
import { bringWorkbench } from './pieces';

const Workbench = dynamic(bringWorkbench, { ssr: false, loading: Opening });

/** The job that the address names: a page that the browser has kept is the same for all of them. */
export function JobPage() {
  const id = decodeURIComponent(usePathname().split('/')[2] ?? '');
  return <Workbench id={id} />;
}
