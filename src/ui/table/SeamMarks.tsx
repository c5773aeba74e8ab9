import { WIDE } from '@/core/proof/fit';
import { type InlayPiece } from '@/ui/proof/pieces';
import { useView } from '@/ui/view';
import { toScreen, type Viewport } from './viewport';
import type { OneSetup } from '@/core/job/job';
import { usePiecesLater } from '@/ui/following';

/** Colours of a seam: as it is wanted, wider, wide enough to be seen, and where walls lie in one another. */
const COLOURS = {
  good: 'var(--mui-palette-primary-main)',
  wider: 'var(--mui-palette-brass)',
  wide: 'var(--mui-palette-error-main)',
} as const;
/** Walls that lie further in one another than this are marked, mm. */
const IN = -0.005;
/** Places further apart than this belong to other outlines, mm. */
const APART = 3;

/** The seams of inlays as a tint along their outlines, on the blank of either half. */
export function SeamMarks({ job, view }: { readonly job: OneSetup; readonly view: Viewport }) {
  const inlays = usePiecesLater((p) => p.inlays);
  const shown = useView((v) => v.stage === 'proof');
  if (!shown) return null;
  return inlays
    .filter((i) => i.pocket === job.at.id || i.plug === job.at.id)
    .map((i) => <Seam key={i.cut} inlay={i} job={job} view={view} />);
}

function Seam({ inlay, job, view }: { readonly inlay: InlayPiece; readonly job: OneSetup; readonly view: Viewport }) {
  const { seam, wanted } = inlay;
  const over = inlay.plug === job.at.id;
  const { width, height } = job.blank;
  const at = (k: number) => {
    const { x, y } = seam[k];
    const p = !over ? { x, y } : inlay.turned === 'y' ? { x: width - x, y } : { x, y: height - y };
    return toScreen(view, p.x, p.y);
  };
  const paths = { good: '', wider: '', wide: '' };
  for (let k = 0; k + 1 < seam.length; k++) {
    const [a, b] = [seam[k], seam[k + 1]];
    if (Math.hypot(a.x - b.x, a.y - b.y) > APART || a.wide !== a.wide || b.wide !== b.wide) continue;
    const worst = Math.max(a.wide, b.wide) - wanted;
    const isIn = Math.min(a.wide, b.wide) < IN;
    // Corners that are relieved are meant to be wider.
    const isWide = worst > WIDE && !(a.relieved || b.relieved);
    const of = isIn || isWide ? 'wide' : worst > WIDE / 2 ? 'wider' : 'good';
    const [p, q] = [at(k), at(k + 1)];
    paths[of] += `M${p.x.toFixed(1)} ${p.y.toFixed(1)}L${q.x.toFixed(1)} ${q.y.toFixed(1)}`;
  }
  return (
    <g role="img" aria-label="Seam" fill="none" strokeWidth="2.5" strokeLinecap="round">
      {(['good', 'wider', 'wide'] as const).map((k) => paths[k] && <path key={k} d={paths[k]} stroke={COLOURS[k]} />)}
    </g>
  );
}
