'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useMemo, useRef, useState, type PointerEvent } from 'react';
import { lookAtField } from '@/compute/engineHandle';
import { derived } from '@/core/geometry/hash';
import type { OneSetup } from '@/core/job/job';
import type { Casting } from '@/core/proof/casting';
import { savePicture } from '@/store/jobs';
import { pictured } from '@/core/job/allSetups';
import { action } from '@/ui/actions/registry';
import { joinedAll } from '@/core/proof/joined';
import { type CastPiece } from '@/ui/proof/pieces';
import { useView } from '@/ui/view';
import { useOpenJobLater, usePiecesLater, useViewLater, useWorkLater } from '@/ui/following';
import { addressOf, PORTRAIT } from './solid/portrait';
import type { SecondBody } from './solid/scene';
import { PlainSolid } from './solid/PlainSolid';
import { leaveSolidSeat, solidSeat, type SolidSeat } from './solid/seat';
import { useShownRelief } from './useShownRelief';
import { useSize } from './useSize';

const VIEWS = [
  ['corner', 'Corner'],
  ['top', 'Top'],
  ['front', 'Front'],
  ['side', 'Side'],
  ['under', 'Below'],
] as const;

/** A picture that is lost is made again after so long, ms, and so often in all. */
const AGAIN = 700;
const MOST_BEGINNINGS = 5;

/** What is proven has stood still after so long, ms: whoever changes something meanwhile does not wait for its picture. */
const STOOD = 900;

/** The light stands where it is best seen until it is moved. */
const FIRST = useView.getInitialState().seen;

/** What is pressed between dies is seen in this. */
const SHEET = 'brass' as const;
/** What of the blank is seen until the view has said so. */
const EVERYTHING = { y0: -Infinity, y1: Infinity };

/** A casting stands as far from its mould as that, of the mould's width. */
const APART = 0.08;
type Sizes = Pick<OneSetup['blank'], 'width' | 'height' | 'thickness'>;

/** How wide and how deep a blank is together with what stands right of it. */
const withBeside = (blank: Sizes, second: Sizes): readonly [number, number] => [
  blank.width * (1 + APART) + second.width,
  Math.max(blank.height, second.height),
];
/** A casting on the bed, right of its mould. */
const kept = derived<Casting, SecondBody>();
const standing = (blank: Sizes, { casting, material }: CastPiece): SecondBody =>
  kept(casting, `${material} ${blank.width} ${blank.height} ${blank.thickness}`, () => ({
    ...{ field: casting.field, width: casting.width, height: casting.height, thickness: casting.thickness, material },
    at: [blank.width * (1 + APART), (blank.height - casting.height) / 2, casting.thickness - blank.thickness],
  }));

/** The blank in the round. Drag turns, Shift or the middle button shifts, the wheel zooms; arrows and + - by keyboard. */
export function SolidView() {
  const job = useOpenJobLater((s) => s.job)!;
  const jobId = useOpenJobLater((s) => s.id)!;
  const proof = useWorkLater((w) => w.proof);
  const play = useViewLater((v) => v.play);
  const camera = useViewLater((v) => v.camera);
  const holder = useRef<HTMLDivElement>(null);
  const [seat, setSeat] = useState<SolidSeat | null>(null);
  const solid = seat?.api;
  const [failed, setFailed] = useState(false);
  const [lost, setLost] = useState(false);
  const [begun, setBegun] = useState(1);
  const piece = useViewLater((v) => (v.stage === 'proof' ? v.piece : 'blank'));
  const { cast: made, inlays } = usePiecesLater((p) => p);
  const cast = (piece === 'beside' || piece === 'cast') && made?.setup === job.at.id ? made : null;
  const joined = useMemo(() => {
    const here = piece === 'joined' ? inlays.filter((i) => i.pocket === job.at.id && i.joined) : [];
    const all = joinedAll(here.map((i) => i.joined!));
    return all && { ...all, inlaid: here.map((i, k) => ({ share: all.shares[k], material: i.material })) };
  }, [piece, inlays, job.at.id]);
  const alone = piece === 'cast' ? cast : null;
  const sheet = piece === 'joined' ? (inlays.find((i) => i.pocket === job.at.id && i.sheet)?.sheet ?? null) : null;
  const { width, height, thickness, material } = alone
    ? { ...alone.casting, material: alone.material }
    : sheet
      ? { ...job.blank, thickness: sheet.thickness, material: SHEET }
      : job.blank;
  /** How wide and how deep all is that stands there. */
  const [across, deep] = cast && !alone ? withBeside(job.blank, cast.casting) : [width, height];
  const size = useSize(holder);
  const drag = useRef<{ x: number; y: number; pan: boolean } | null>(null);
  const empty = !job.cuts.some((c) => c.enabled);
  const last = useOpenJobLater((s) => s.whole && pictured(s.whole).at(-1)?.id);

  useEffect(() => {
    const mine = solidSeat();
    holder.current!.prepend(mine.canvas);
    let live = true;
    mine.onSeen = (at) => live && lookAtField(at);
    mine.onLost = () => {
      if (!live) return;
      leaveSolidSeat();
      setSeat(null);
      if (begun >= MOST_BEGINNINGS) return setFailed(true);
      setLost(true);
      setTimeout(() => live && setBegun(begun + 1), AGAIN);
    };
    void mine.started.then((ok) => {
      if (!live) return;
      setLost(false);
      if (ok) setSeat(mine);
      else setFailed(true);
    });
    return () => {
      live = false;
      mine.canvas.remove();
      setSeat(null);
    };
  }, [begun]);
  useEffect(() => void solid?.resize(size.width, size.height, window.devicePixelRatio || 1), [solid, size]);
  useEffect(() => {
    if (size.width) seat?.look(camera.to, camera.n, across, deep, thickness);
  }, [seat, size, across, deep, thickness, camera]);
  const glimpse = useWorkLater((w) => w.glimpse);
  useEffect(() => {
    lookAtField(EVERYTHING);
    return () => lookAtField(null);
  }, []);
  const ofRelief = useViewLater((v) => v.stage === 'relief');
  const shaped = useShownRelief();
  const relief = ofRelief ? shaped : null;
  const { from, high, tint } = useViewLater((v) => v.seen);
  useEffect(
    () => void solid?.lit(ofRelief && (from !== FIRST.from || high !== FIRST.high) ? { from, high } : null),
    [solid, ofRelief, from, high],
  );
  const busy = useWorkLater((w) => w.comparing || (w.shaping ?? w.planning ?? w.proving) !== null);
  useEffect(() => void solid?.busy(busy), [solid, busy]);
  const coloured = ofRelief ? tint : 'material';
  const paint = ofRelief || alone || joined || sheet ? 'none' : job.blank.paint;
  const cut = empty ? null : (play?.field ?? proof?.field ?? glimpse);
  // Where the relief is shaped it is seen, everywhere else what is cut.
  const field = ofRelief ? relief : (joined?.field ?? sheet?.field ?? (alone ? alone.casting.field : cut));
  const inlaid = joined?.inlaid ?? null;
  const under = ofRelief || alone ? null : sheet ? sheet.under : (proof?.under ?? null);
  useEffect(
    () => seat?.body(field, under, width, height, thickness, material, paint, coloured, inlaid),
    [seat, field, under, width, height, thickness, material, paint, coloured, inlaid],
  );
  useEffect(() => seat?.beside(cast && !alone ? standing(job.blank, cast) : null), [seat, cast, alone, job.blank]);
  useEffect(() => {
    const c = play && !alone && !joined && !sheet ? (job.cutters.find((q) => q.id === play.cutterId) ?? null) : null;
    void solid?.cutter(c, play?.x ?? 0, play?.y ?? 0, play?.z ?? 0);
  }, [solid, play, alone, joined, sheet, job.cutters]);
  // The card's picture: taken when what is proven has stood still for a moment and nobody works.
  const cutTo = proof?.field;
  useEffect(() => {
    // Of several set-ups it shows the last.
    if (!solid || !cutTo || busy || play || empty || ofRelief || piece !== 'blank' || last !== job.at.id) return;
    let live = true;
    const timer = setTimeout(() => {
      void solid
        .picture(PORTRAIT.width, PORTRAIT.height)
        .then(addressOf)
        .then((url) => (live ? savePicture(jobId, url) : undefined))
        .catch(() => {});
    }, STOOD);
    return () => {
      live = false;
      clearTimeout(timer);
    };
  }, [solid, cutTo, busy, play, material, paint, jobId, empty, ofRelief, piece, last, job.at.id]);
  useEffect(() => {
    const el = holder.current!;
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      void solid?.zoom(Math.exp(-e.deltaY * 0.0015));
    };
    el.addEventListener('wheel', wheel, { passive: false });
    return () => el.removeEventListener('wheel', wheel);
  }, [solid]);

  const move = (e: PointerEvent) => {
    const d = drag.current;
    if (!d) return;
    const dx = (e.clientX - d.x) / size.height;
    const dy = (e.clientY - d.y) / size.height;
    d.x = e.clientX;
    d.y = e.clientY;
    void (d.pan ? solid?.pan(dx, dy) : solid?.orbit(dx, dy));
  };
  return (
    <Box
      ref={holder}
      role="application"
      aria-label="The blank in the round"
      tabIndex={0}
      onPointerDown={(e) => {
        if (e.button === 2 || (e.target as HTMLElement).closest('button')) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        drag.current = { x: e.clientX, y: e.clientY, pan: e.shiftKey || e.button === 1 };
      }}
      onPointerMove={move}
      onPointerUp={() => (drag.current = null)}
      onKeyDown={(e) => {
        const turn = { ArrowLeft: [-0.05, 0], ArrowRight: [0.05, 0], ArrowUp: [0, 0.05], ArrowDown: [0, -0.05] }[e.key];
        if (turn) void (e.shiftKey ? solid?.pan(turn[0], -turn[1]) : solid?.orbit(turn[0], turn[1]));
        else if (e.key === '+' || e.key === '-') void solid?.zoom(e.key === '+' ? 1.15 : 1 / 1.15);
        else return;
        e.preventDefault();
        e.stopPropagation();
      }}
      sx={{
        position: 'absolute',
        inset: 0,
        touchAction: 'none',
        outline: 'none',
        cursor: 'grab',
        '&:active': { cursor: 'grabbing' },
        '&:focus-visible': { boxShadow: 'inset 0 0 0 2px var(--mui-palette-primary-main)' },
        background: 'linear-gradient(var(--mui-palette-background-paper), var(--mui-palette-background-default))',
      }}
    >
      {failed ? (
        <PlainSolid
          field={field}
          width={width}
          height={height}
          thickness={thickness}
          material={material}
          paint={paint}
        />
      ) : lost ? (
        <Box
          role="status"
          sx={{
            position: 'absolute',
            inset: 0,
            display: 'grid',
            placeItems: 'center',
            p: 4,
            color: 'text.secondary',
            textAlign: 'center',
          }}
        >
          The graphics driver took the picture away. It is being made again{'\u2026'}
        </Box>
      ) : (
        <Box
          role="group"
          aria-label="Standard views"
          sx={{
            position: 'absolute',
            top: 4,
            right: 6,
            display: 'flex',
            borderRadius: 1.5,
            // Legible over whatever is looked at closely.
            bgcolor: 'color-mix(in srgb, var(--mui-palette-background-paper) 82%, transparent)',
          }}
        >
          {VIEWS.map(([to, name]) => (
            <Button
              key={to}
              size="small"
              color="inherit"
              onClick={action(`camera-${to}`).run}
              sx={{ minWidth: 0, px: 1, minHeight: 28, fontSize: 12, color: 'text.secondary' }}
            >
              {name}
            </Button>
          ))}
        </Box>
      )}
    </Box>
  );
}
