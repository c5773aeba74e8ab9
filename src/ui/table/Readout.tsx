'use client';
import Box from '@mui/material/Box';
import { memo } from 'react';
import { heightAt } from '@/core/relief/field';
import { formatLength } from '@/core/units/length';
import { useDatum } from '@/ui/common/useDatum';
import { useOpenJobLater, usePiecesLater, useViewLater, useWorkLater } from '@/ui/following';

/** Where the cursor is, and how high the proof is under it. */
export function Readout() {
  const job = useOpenJobLater((s) => s.job)!;
  const cursor = useViewLater((v) => v.cursor);
  const play = useViewLater((v) => v.play);
  const ofRelief = useViewLater((v) => v.stage === 'relief');
  const ofProof = useViewLater((v) => v.stage === 'proof');
  // What is not under a cursor is not followed.
  const proof = useWorkLater((w) => (cursor ? w.proof : null));
  const relief = useWorkLater((w) => (cursor ? w.relief : null));
  const cast = usePiecesLater((p) => p.cast);
  const field = ofRelief ? relief?.shaped.field : (play?.field ?? proof?.field);
  const origin = useDatum(job);
  const z = cursor && field ? heightAt(field, cursor.x, cursor.y) : NaN;
  const text = (v: number) => (Number.isFinite(v) ? formatLength(v, job.unit, job.unit === 'mm' ? 2 : 4) : '\u2013');
  const inCast = ofProof && cast?.setup === job.at.id && Number.isFinite(z);
  const inRelief = ofRelief && Number.isFinite(z);
  return (
    <Words
      on={!!cursor}
      x={text((cursor?.x ?? NaN) - origin.x)}
      y={text((cursor?.y ?? NaN) - origin.y)}
      z={text(z - origin.z)}
      cast={inCast ? text(Math.max(0, cast.casting.level - Math.max(z, -job.blank.thickness))) : null}
      below={inRelief ? text(-z) : null}
      above={inRelief ? text(z + job.blank.thickness) : null}
    />
  );
}

interface Said {
  readonly on: boolean;
  readonly x: string;
  readonly y: string;
  readonly z: string;
  readonly cast: string | null;
  readonly below: string | null;
  readonly above: string | null;
}

/** Drawn anew only when one of the words is another. */
const Words = memo(function Words({ on, x, y, z, cast, below, above }: Said) {
  return (
    <Box
      aria-label="Cursor"
      sx={{
        display: 'flex',
        gap: 1.5,
        alignItems: 'center',
        fontFamily: '"IBM Plex Mono"',
        fontSize: 12.5,
        color: on ? 'text.primary' : 'text.secondary',
        whiteSpace: 'nowrap',
      }}
    >
      {[`X ${x}`, `Y ${y}`, `Z ${z}`].map((words) => (
        <Box key={words[0]} component="span" sx={{ minWidth: 74 }}>
          {words}
        </Box>
      ))}
      {cast && <Box component="span">Cast {cast}</Box>}
      {below && (
        // On two lines: between a plan and a solid there is little room.
        <Box sx={{ fontSize: 11.5, lineHeight: 1.25, my: -0.75 }}>
          <div>{below} below the face</div>
          <div>{above} above the bed</div>
        </Box>
      )}
    </Box>
  );
});
