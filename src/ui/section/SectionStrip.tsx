'use client';
import Box from '@mui/material/Box';
import { scaleLinear } from 'd3-scale';
import { useEffect, useMemo, useRef, useState } from 'react';
import { atProof, sectionOf } from '@/compute/engineHandle';
import { isCancelled } from '@/compute/workerHandle';
import { profileOf, radiusOf } from '@/core/cutters/cutter';
import { materials } from '@/core/cutters/materials';
import { kindOf } from '@/core/cuts/registry';
import { heightAt } from '@/core/relief/field';
import { formatLength } from '@/core/units/length';
import { useDatum } from '@/ui/common/useDatum';
import { openMenu, setView } from '@/ui/view';
import { PAD, sectionDrawing, type Sample } from './drawing';
import { useSize } from '@/ui/table/useSize';
import { useOpenJobLater, useViewLater, useWorkLater } from '@/ui/following';

const COUNT = 1000;

/** Ticks that are round in the job's unit, counted from an origin; mm. */
const rounded = (domain: number[], count: number, inch: number, origin: number): number[] =>
  scaleLinear()
    .domain(domain.map((v) => (v - origin) / inch))
    .ticks(count)
    .map((t) => t * inch + origin);

/** A vertical section along the maker's line: the wanted surface, the proof, the cutter at the cursor, and both depths. */
export function SectionStrip() {
  const job = useOpenJobLater((s) => s.job)!;
  const section = useViewLater((v) => v.section);
  const at = useViewLater((v) => v.sectionAt);
  const cutId = useViewLater((v) => v.cutId);
  const play = useViewLater((v) => v.play);
  const proof = useWorkLater((w) => w.proof);
  const glimpse = useWorkLater((w) => w.glimpse);
  const ofRelief = useViewLater((v) => v.stage === 'relief');
  const shaped = useWorkLater((w) => w.relief?.shaped.field ?? null);
  const ref = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(ref);
  const [target, setTarget] = useState<Float64Array | null>(null);
  const asked = useRef(0);

  useEffect(() => {
    if (!section || ofRelief) return;
    const ticket = ++asked.current;
    const timer = setTimeout(() => {
      void sectionOf(job.at.id, section.x0, section.y0, section.x1, section.y1, COUNT)
        .then((r) => ticket === asked.current && setTarget(r.target))
        .catch((e) => {
          if (!isCancelled(e)) setTarget(null);
        });
    }, 60);
    return () => clearTimeout(timer);
    // What is wanted of cuts over the relief comes with the relief.
  }, [section, job, ofRelief, shaped]);

  const setupId = job.at.id;
  // Cut exactly along the line by the proven programs; what stands between the proof's nodes shows until that is there.
  const [cut, setCut] = useState<{ of: unknown; proof: unknown; z: Float64Array } | null>(null);
  useEffect(() => {
    if (!section || !proof || ofRelief) return;
    let live = true;
    const timer = setTimeout(() => {
      void atProof
        .along(setupId, section.x0, section.y0, section.x1, section.y1, COUNT)
        .then((z) => live && z && setCut({ of: section, proof, z }))
        .catch((e) => {
          if (!isCancelled(e)) throw e;
        });
    }, 60);
    return () => {
      live = false;
      clearTimeout(timer);
    };
  }, [section, proof, setupId, ofRelief]);
  const exact = !play && cut?.of === section && cut?.proof === proof ? cut.z : null;

  const field = play?.field ?? proof?.field ?? glimpse;
  const under = proof?.under ?? null;
  const length = section ? Math.hypot(section.x1 - section.x0, section.y1 - section.y0) : 1;
  const samples = useMemo((): readonly Sample[] => {
    if (!section) return [];
    return Array.from({ length: COUNT }, (_, i) => {
      const f = i / (COUNT - 1);
      const x = section.x0 + (section.x1 - section.x0) * f;
      const y = section.y0 + (section.y1 - section.y0) * f;
      const on = x >= 0 && y >= 0 && x <= job.blank.width && y <= job.blank.height;
      // What is empty of a relief stays as the blank is.
      if (ofRelief)
        return {
          s: f * length,
          on,
          proof: (on && shaped && heightAt(shaped, x, y)) || 0,
          want: NaN,
          floor: -job.blank.thickness,
        };
      return {
        s: f * length,
        on,
        proof: !job.cuts.length ? 0 : exact ? exact[i] : field ? heightAt(field, x, y) : NaN,
        want: on ? (target?.[i] ?? 0) : NaN,
        // The lower face, cut into from the other side.
        floor: -job.blank.thickness - (under && on ? heightAt(under, x, y) : 0),
      };
    });
  }, [section, field, under, exact, target, length, job.blank, job.cuts.length, ofRelief, shaped]);

  const { thickness } = job.blank;
  const {
    x,
    y,
    low,
    solid,
    proof: proofLine,
    want: wantLine,
  } = useMemo(
    () => sectionDrawing(samples, thickness, length, width, height),
    [samples, thickness, length, width, height],
  );
  const here = at !== null ? samples[Math.round(at * (COUNT - 1))] : null;
  const open = job.cuts.find((c) => c.id === cutId);
  const cutter = open ? job.cutters.find((c) => c.id === kindOf(open.kind).cutters(open.values).at(-1)) : undefined;
  const silhouette = useMemo(() => {
    if (!cutter) return null;
    const p = profileOf(cutter);
    const r = radiusOf(cutter);
    return Array.from({ length: 41 }, (_, i) => {
      const rho = -r + (2 * r * i) / 40;
      return { rho, h: Math.min(p(Math.min(Math.abs(rho), r - 1e-9)), 400) };
    });
  }, [cutter]);
  const origin = useDatum(job);
  /** Heights as the machine shows them. */
  const high = (z: number) => num(z - origin.z);
  const inch = job.unit === 'in' ? 25.4 : 1;
  const num = (v: number) => (Number.isFinite(v) ? formatLength(v, job.unit, job.unit === 'mm' ? 2 : 4) : '\u2013');
  const ratio = (height - PAD.top - PAD.bottom) / (low * 1.02) / ((width - PAD.left - PAD.right) / length);
  return (
    <Box
      ref={ref}
      component="section"
      aria-label="Section"
      onContextMenu={(e) => openMenu(e, 'section')}
      sx={{
        position: 'relative',
        flex: 1,
        minWidth: 0,
        bgcolor: 'background.paper',
        border: '1px solid',
        borderColor: 'divider',
        borderRadius: 2.5,
        overflow: 'hidden',
      }}
    >
      {width > 0 && height > PAD.top + PAD.bottom && (
        <svg
          width={width}
          height={height}
          role="img"
          aria-label="Vertical section along the line on the plan"
          onPointerMove={(e) => {
            const px = e.clientX - e.currentTarget.getBoundingClientRect().left;
            setView({ sectionAt: Math.min(1, Math.max(0, x.invert(px) / length)) });
          }}
          onPointerLeave={() => setView({ sectionAt: null })}
        >
          <clipPath id="section-clip">
            <rect
              x={PAD.left}
              y="0"
              width={Math.max(0, width - PAD.left - PAD.right)}
              height={height - PAD.bottom + 1}
            />
          </clipPath>
          {rounded(y.domain(), 4, inch, origin.z).map((t) => (
            <g key={t}>
              <line x1={PAD.left} x2={width - PAD.right} y1={y(t)} y2={y(t)} stroke="var(--mui-palette-divider)" />
              <text
                x={PAD.left - 8}
                y={y(t) + 4}
                textAnchor="end"
                fontSize="11"
                fill="var(--mui-palette-text-secondary)"
              >
                {high(t)}
              </text>
            </g>
          ))}
          {rounded(x.domain(), Math.max(3, Math.floor(width / 110)), inch, 0).map((t) => (
            <text
              key={t}
              x={x(t)}
              y={height - 6}
              textAnchor="middle"
              fontSize="11"
              fill="var(--mui-palette-text-secondary)"
            >
              {num(t)}
            </text>
          ))}
          <g clipPath="url(#section-clip)">
            <path d={solid} fill={materials[job.blank.material].face} opacity="0.45" />
            <path d={wantLine} fill="none" stroke="var(--mui-palette-brass)" strokeWidth="1.5" strokeDasharray="5 3" />
            <path
              d={proofLine}
              fill="none"
              stroke="var(--mui-palette-primary-main)"
              strokeWidth="1.8"
              strokeLinejoin="round"
            />
            {here && silhouette && Number.isFinite(here.want) && (
              <path
                d={`M${silhouette.map((p) => `${x(here.s + p.rho)} ${y(Math.max(here.want, -low * 1.02) + p.h)}`).join('L')}`}
                fill="var(--mui-palette-text-primary)"
                fillOpacity="0.14"
                stroke="var(--mui-palette-text-secondary)"
                strokeWidth="1"
              />
            )}
            {here && (
              <line
                x1={x(here.s)}
                x2={x(here.s)}
                y1="0"
                y2={height - PAD.bottom}
                stroke="var(--mui-palette-text-secondary)"
                strokeWidth="1"
              />
            )}
          </g>
        </svg>
      )}
      <Box
        sx={{
          position: 'absolute',
          top: 6,
          right: 14,
          display: 'flex',
          gap: 1.75,
          fontSize: 12,
          bgcolor: 'color-mix(in srgb, var(--mui-palette-background-paper) 85%, transparent)',
          px: 0.75,
          borderRadius: 1,
          pointerEvents: 'none',
        }}
      >
        <Box component="span" sx={{ color: 'text.secondary', display: ofRelief ? 'none' : undefined }}>
          <Box
            component="span"
            sx={{
              display: 'inline-block',
              width: 16,
              borderTop: '2px dashed',
              borderColor: 'var(--mui-palette-brass)',
              mr: 0.75,
              verticalAlign: 'middle',
            }}
          />
          wanted <b>{here ? high(here.want) : ''}</b>
        </Box>
        <Box component="span" sx={{ color: 'text.secondary' }}>
          <Box
            component="span"
            sx={{
              display: 'inline-block',
              width: 16,
              borderTop: '2px solid',
              borderColor: 'primary.main',
              mr: 0.75,
              verticalAlign: 'middle',
            }}
          />
          {ofRelief ? 'relief' : 'proof'} <b>{here ? high(here.proof) : ''}</b>
        </Box>
        <Box component="span" sx={{ color: 'text.secondary' }}>
          depth {'\u00d7'} {ratio >= 10 ? Math.round(ratio) : ratio.toFixed(1)}
        </Box>
      </Box>
    </Box>
  );
}
