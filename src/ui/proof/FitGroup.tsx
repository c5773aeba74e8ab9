'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useEffect, useState } from 'react';
import { atProof } from '@/compute/engineHandle';
import { useWork } from '@/compute/useWork';
import { isCancelled } from '@/compute/workerHandle';
import { inlaysOf, type InlayPair } from '@/core/job/inlay';
import type { Fitted } from '@/core/pipeline/fitting';
import { TOUCH, type FitPlace } from '@/core/proof/fit';
import { lengthText } from '@/core/units/length';
import { percentOf } from '@/core/units/count';
import { Group } from '@/ui/common/SheetParts';
import { useLater } from '@/ui/later';
import { useOpenJob } from '@/store/openJob';
import { setView } from '@/ui/view';

/** How long it waits before it asks again for what is not proven yet, ms. */
const AGAIN = 800;

/** The pairs of the set-up that is shown, put together as both halves were proven; nothing where it belongs to none. */
export function FitGroups() {
  const whole = useLater(useOpenJob, (s) => s.whole);
  const shown = useLater(useOpenJob, (s) => s.shownId);
  if (!whole || !shown) return null;
  const { pairs, missing } = inlaysOf(whole);
  const here = pairs.filter((p) => p.pocket === shown || p.plug === shown);
  const lacks = missing[shown];
  return (
    <>
      {lacks && (
        <Group title="Fit">
          <Typography variant="body2" sx={{ color: 'error.main' }}>
            {lacks}
          </Typography>
        </Group>
      )}
      {here.map((p) => (
        <FitGroup key={`${p.pocketCut} ${p.plugCut}`} pair={p} shown={shown} />
      ))}
    </>
  );
}

function FitGroup({ pair, shown }: { readonly pair: InlayPair; readonly shown: string }) {
  const whole = useLater(useOpenJob, (s) => s.whole)!;
  const [pocket, plug] = [pair.pocket, pair.plug].map((id) => whole.setups.find((s) => s.id === id)!);
  const proofs = useLater(useWork, (w) => w.setups);
  const said = useLater(useWork, (w) => w.said);
  const [a, b] = [proofs[pair.pocket]?.proof ?? null, proofs[pair.plug]?.proof ?? null];
  const fresh = !!said && said.whole === whole && [pair.pocket, pair.plug].every((id) => said.fresh[id]?.all);
  const [known, setKnown] = useState<{ a: unknown; b: unknown; fitted: Fitted } | null>(null);
  useEffect(() => {
    if (!fresh || !a || !b) return;
    let live = true;
    let timer: ReturnType<typeof setTimeout>;
    const ask = () =>
      void atProof
        .fit(pair)
        .then((fitted) => live && setKnown({ a, b, fitted }))
        .catch((e) => {
          if (!isCancelled(e)) throw e;
          // What was shown from before is proven again in its turn; what else came between is asked for anew.
          if (live) timer = setTimeout(ask, AGAIN);
        });
    ask();
    return () => {
      live = false;
      clearTimeout(timer);
    };
    // A pair is named by what it is made of.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [fresh, a, b, pair.pocketCut, pair.plugCut]);
  const now = fresh && known && known.a === a && known.b === b ? known.fitted : null;
  const { unit } = whole;
  const long = (mm: number) => lengthText(mm, unit, unit === 'mm' ? 2 : 4);
  /** Places lie on the pocket's blank: it is shown first. */
  const show = (p: FitPlace, text: string) => {
    if (shown !== pair.pocket) useOpenJob.getState().show(pair.pocket);
    setView((v) => ({ marked: { x: p.x, y: p.y, text }, table: v.table === 'solid' ? 'both' : v.table }));
  };
  const fit = now?.fit;
  return (
    <Group title={shown === pair.pocket ? `Fit of "${plug.name}"` : `Fit into "${pocket.name}"`}>
      {!now || !fit ? (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          The halves are put together once both are proven.
        </Typography>
      ) : (
        <>
          <Box component="dl" sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 0.75, m: 0, fontSize: 13 }}>
            <Line name="Goes in" value={`${long(fit.goesIn - fit.short.mm)} of ${long(fit.goesIn)}`} />
            {fit.seam && (
              <Line name="Widest seam" value={fit.seam.mm < TOUCH ? `under ${long(TOUCH)}` : long(fit.seam.mm)} />
            )}
            {fit.wide > 0 && <Line name="Walls with a seam that is seen" value={`${percentOf(fit.wide, 1)} %`} />}
            {fit.glue && (
              <Line name="Room for glue on the floor" value={`${long(fit.glue.least)} to ${long(fit.glue.most)}`} />
            )}
            {fit.saw !== null && <Line name="Room for the saw" value={long(fit.saw)} />}
          </Box>
          {now.troubles.length ? (
            now.troubles.map((t) => (
              <Box key={t.text} sx={{ mt: 1 }}>
                <Typography variant="body2" sx={{ color: 'error.main' }}>
                  {t.text}
                </Typography>
                {t.at && (
                  <Button size="small" sx={{ ml: -0.75, minHeight: 26 }} onClick={() => show(t.at!, t.text)}>
                    Show me
                  </Button>
                )}
              </Box>
            ))
          ) : (
            <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
              The plug goes all the way in, and no seam is seen.
            </Typography>
          )}
        </>
      )}
    </Group>
  );
}

const Line = ({ name, value }: { readonly name: string; readonly value: string }) => (
  <>
    <Box component="dt" sx={{ color: 'text.secondary' }}>
      {name}
    </Box>
    <Box component="dd" sx={{ m: 0, fontWeight: 600, fontVariantNumeric: 'tabular-nums' }}>
      {value}
    </Box>
  </>
);
