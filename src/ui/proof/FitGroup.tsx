'use client';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useEffect } from 'react';
import { atProof } from '@/compute/engineHandle';
import { pairsOf, type Pair } from '@/core/job/pairs';
import type { Fitted, StraightFit } from '@/core/pipeline/fitting';
import type { PressedFit, Room } from '@/core/pipeline/pressing';
import { TOUCH, type Fit, type FitPlace } from '@/core/proof/fit';
import { lengthText } from '@/core/units/length';
import { percentOf } from '@/core/units/count';
import { changeSheet } from '@/ui/actions/inlay';
import { LengthField } from '@/ui/common/fields';
import { Group } from '@/ui/common/SheetParts';
import { useOpenJob } from '@/store/openJob';
import { setView } from '@/ui/view';
import { useOpenJobLater } from '@/ui/following';
import { showInlay } from './pieces';
import { Facts, Line, NoAnswer, PieceChoice, Troubles } from './said';
import { SeamChart } from './SeamChart';
import { useAsked } from './useAsked';

/** The pairs of the set-up that is shown, put together as both halves were proven; nothing where it belongs to none. */
export function FitGroups() {
  const whole = useOpenJobLater((s) => s.whole);
  const shown = useOpenJobLater((s) => s.shownId);
  if (!whole || !shown) return null;
  const { pairs, missing } = pairsOf(whole);
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
        <FitGroup
          key={`${p.pocketCut} ${p.plugCut}`}
          pair={p}
          shown={shown}
          several={here.some((q) => q !== p && q.plug === p.plug && q.pocket === p.pocket)}
        />
      ))}
    </>
  );
}

function FitGroup({
  pair,
  shown,
  several,
}: {
  readonly pair: Pair;
  readonly shown: string;
  /** Whether there are others of the same two set-ups. */
  readonly several: boolean;
}) {
  const whole = useOpenJobLater((s) => s.whole)!;
  const [pocket, plug] = [pair.pocket, pair.plug].map((id) => whole.setups.find((s) => s.id === id)!);
  const { answer: now, failed } = useAsked<Fitted>([pair.pocket, pair.plug], JSON.stringify(pair), () =>
    atProof.fit(pair),
  );
  const { unit } = whole;
  const cutOf = ({ cuts }: typeof plug) => cuts.find((c) => c.id === pair.plugCut)?.name ?? plug.name;
  const material = whole.blanks.find((b) => b.id === plug.blank)!.material;
  useEffect(() => {
    const { joined, sheet, seam, wanted } = now ?? {};
    const { turned } = pair;
    showInlay(
      pair.plugCut,
      joined !== undefined && sheet !== undefined && seam
        ? {
            ...{ pocket: pair.pocket, plug: pair.plug, cut: pair.plugCut, turned },
            ...{ joined, sheet, material, seam, wanted: wanted ?? 0 },
          }
        : null,
    );
    return () => showInlay(pair.plugCut, null);
    // A pair is named by what it is made of, which what is known of it goes by.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [now, material]);
  const long = (mm: number) => lengthText(mm, unit, unit === 'mm' ? 2 : 4);
  /** Places lie on the pocket's blank: it is shown first. */
  const show = (p: Pick<FitPlace, 'x' | 'y'>, text: string) => {
    if (shown !== pair.pocket) useOpenJob.getState().show(pair.pocket);
    setView((v) => ({ marked: { x: p.x, y: p.y, text }, table: v.table === 'solid' ? 'both' : v.table }));
  };
  const { fit, straight, pressed } = now ?? {};
  const fine = (mm: number) => lengthText(mm, unit, unit === 'mm' ? 3 : 4);
  return (
    <Group
      title={
        several
          ? `Fit of "${cutOf(plug)}"`
          : shown === pair.pocket
            ? `Fit of "${plug.name}"`
            : `Fit into "${pocket.name}"`
      }
    >
      {pair.sheet !== undefined && (
        <Box sx={{ maxWidth: 150, mb: 1.25 }}>
          <LengthField
            label="Thickness of the sheet"
            value={pair.sheet}
            unit={unit}
            min={0.01}
            max={10}
            onChange={(mm) => mm && changeSheet(pair, mm)}
          />
        </Box>
      )}
      {!now ? (
        <NoAnswer failed={failed} until="The halves are put together once both are proven." />
      ) : (
        <>
          {fit && <LeaningFacts fit={fit} long={long} />}
          {straight && <StraightFacts fit={straight} long={long} fine={fine} />}
          {pressed && <PressedFacts fit={pressed} fine={fine} />}
          <SeamChart name={pressed ? 'Room' : 'Seam'} seam={now.seam} wanted={now.wanted} unit={unit} show={show} />
          {shown === pair.pocket && (now.joined || now.sheet) && (
            <Box sx={{ mt: 1 }}>
              <PieceChoice
                names={
                  now.sheet
                    ? { blank: 'Sunk die', joined: 'Pressed sheet' }
                    : { blank: 'Pocket', joined: 'Put together' }
                }
              />
            </Box>
          )}
          {now.troubles.length ? (
            <Troubles troubles={now.troubles} show={show} />
          ) : (
            <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
              {pressed
                ? 'Closed, the dies leave the sheet the room that it needs everywhere.'
                : straight
                  ? 'The plug goes in with its clearance all round.'
                  : 'The plug goes all the way in, and no seam is seen.'}
            </Typography>
          )}
        </>
      )}
    </Group>
  );
}

type Long = (mm: number) => string;

const LeaningFacts = ({ fit, long }: { readonly fit: Fit; readonly long: Long }) => (
  <Facts>
    <Line name="Goes in" value={`${long(fit.goesIn - fit.short.mm)} of ${long(fit.goesIn)}`} />
    {fit.seam && <Line name="Widest seam" value={fit.seam.mm < TOUCH ? `under ${long(TOUCH)}` : long(fit.seam.mm)} />}
    {fit.wide > 0 && <Line name="Walls with a seam that is seen" value={`${percentOf(fit.wide, 1)} %`} />}
    {fit.glue && <Line name="Room for glue on the floor" value={`${long(fit.glue.least)} to ${long(fit.glue.most)}`} />}
    {fit.saw !== null && <Line name="Room for the saw" value={long(fit.saw)} />}
  </Facts>
);

const StraightFacts = ({
  fit,
  long,
  fine,
}: {
  readonly fit: StraightFit;
  readonly long: Long;
  readonly fine: Long;
}) => (
  <Facts>
    <Line name="Clearance wanted, on each side" value={long(fit.clearance)} />
    {fit.least !== null && fit.most !== null && (
      <Line name="Clearance as it is cut" value={`${fine(fit.least)} to ${fine(fit.most)}`} />
    )}
    <Line
      name={fit.proud < 0 ? 'Lies below the face' : 'Stands proud'}
      value={long(Math.abs(fit.proud) < 5e-3 ? 0 : Math.abs(fit.proud))}
    />
  </Facts>
);

const PressedFacts = ({ fit, fine }: { readonly fit: PressedFit; readonly fine: Long }) => {
  const room = (name: string, r: Room | null) =>
    r && <Line name={name} value={`${fine(r.least.mm)} to ${fine(r.most.mm)}`} />;
  return (
    <Facts>
      {room('Room across the walls', fit.walls)}
      {room('Room on the face', fit.face)}
      {room('Room on what is raised', fit.raised)}
    </Facts>
  );
};
