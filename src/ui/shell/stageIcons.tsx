import type { ReactNode } from 'react';
import type { Stage } from '@/ui/view';

const icon = (children: ReactNode) => (
  <svg
    width="24"
    height="24"
    viewBox="0 0 24 24"
    fill="none"
    stroke="currentColor"
    strokeWidth="1.6"
    strokeLinejoin="round"
    strokeLinecap="round"
    aria-hidden="true"
  >
    {children}
  </svg>
);

/** Icons of the stages, drawn for Mirvak: slab, letter on a base line, hills over a base, tip in a groove, lens over a slope, tape of moves. */
export const stageIcons: Record<Stage, ReactNode> = {
  blank: icon(<path d="M3 10 14 6l7 4v5l-11 4-7-4zM3 10l7 4 11-4M10 14v5" />),
  artwork: icon(<path d="M5 17 11 4h2l6 13M7.5 12.5h9M3 20.5h18" />),
  relief: icon(<path d="M3 19.5h18M3 15.5c2.5 0 3-7 6-7s2.5 4.5 5 4.5 2.5-2 4-2 2 4.5 3 4.5" />),
  cuts: icon(<path d="M9 3h6v7l-3 5-3-5zM9 7h6M2.5 15h5l4.5 5.5 4.5-5.5h5" />),
  proof: icon(<path d="M3 17c4 0 4-9 9-9M15.5 12.5a4.5 4.5 0 1 0 0-.01zM18.7 15.7 21.5 19" />),
  run: icon(<path d="M4 4h16v16H4zM8 9h8M8 12.5h5M8 16h3M15 14l3 2-3 2z" />),
};
