'use client';

import { useMemo, useState, useTransition } from 'react';
import { Box, Grid, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import type { Part } from '@/core/board';
import type { Inspection } from '@/core/inspect';
import { balledPart, sitesOf, type BalledPart } from '@/core/site';
import { judgeSeenBalls, type BallInspection, type JobView } from '@/core/job';
import type { ReuseVerdict } from '@/core/joints';
import { BallPicture, type DrawnSite } from '@/drawings/ball-picture';
import { DiameterBars } from '@/drawings/diameter-bars';
import { AnswerNote, Headline, MainButton } from '@/ui';
import { keepInspection } from './actions';
import { PictureSource, addOrigin, fetched } from './picture-source';
import type { SiteBench } from './queries';
import { usePictureRun } from './use-picture-run';

/** A picture with what was seen in it, before or after it is kept. */
interface Look {
  readonly src: string;
  /** The file, while it is not kept. */
  readonly file?: File;
  readonly width: number;
  readonly height: number;
  readonly seen: Seen;
  /** What the balls seem to measure where that is so unlike what belongs there that light and size cannot be told apart. */
  readonly unlikeMm?: number;
}

type Seen = Pick<BallInspection, 'toPicture' | 'mmPerPx' | 'balls' | 'bridges' | 'crumbs'>;

/** Whether a part's balls are all there, alike and apart: from a picture. */
export function PictureWork({ job, part, bench }: { job: JobView; part: Part; bench: SiteBench }) {
  const pkg = job.board.packages[part.package];
  const balled = useMemo(() => balledPart(pkg), [pkg]);
  if (!balled) {
    return (
      <Headline title={`${part.ref} has no balls`} aside={part.package}>
        Its pads are tinned and level: look at them at “Pads in a picture”.
      </Headline>
    );
  }
  return <BalledWork job={job} part={part} bench={bench} balled={balled} />;
}

interface BalledProps {
  readonly job: JobView;
  readonly part: Part;
  readonly bench: SiteBench;
  readonly balled: BalledPart;
}

function BalledWork({ job, part, bench, balled }: BalledProps) {
  const [look, setLook] = useState<Look | undefined>(() => keptLook(job.state.inspections[part.ref]));
  const [answer, setAnswer] = useState<ActionResult>();
  const [keeping, start] = useTransition();
  const { problem, busy, tookMs, lookAt, take } = usePictureRun({
    look: (picture) => ({ of: 'balls', picture, part: balled }),
    take: (specimen) => ({ of: 'balls', part: balled, specimen, seed: job.number + part.ref.length }),
    onBegin: () => setAnswer(undefined),
    onSeen: (reply, file) => {
      if (reply.of !== 'balls') return;
      const { inspection, width, height } = reply;
      const { sizeInDoubt, usualMm } = inspection;
      const seen = seenOf(inspection, balled);
      const unlikeMm = sizeInDoubt ? usualMm : undefined;
      setLook({ src: URL.createObjectURL(file), file, width, height, seen, unlikeMm });
    },
  });
  const pick = (pin: string): void => {
    if (!look) return;
    setAnswer(undefined);
    setLook({ ...look, seen: { ...look.seen, balls: look.seen.balls.map((b) => (b.pin === pin ? nextState(b) : b)) } });
  };
  const verdict = look && judgeSeenBalls(job.board, { ref: part.ref, ...look.seen }, bench.practice);
  const keep = (): void =>
    start(async () => {
      const form = new FormData();
      const file = look!.file ?? (await fetched(look!.src));
      form.set('picture', file);
      addOrigin(form, file);
      const { seen, width, height } = look!;
      const body = { kind: 'inspection', ...seen, ref: part.ref, width, height };
      form.set('seen', JSON.stringify(body));
      setAnswer(await keepInspection(job.number, form, crypto.randomUUID()));
    });
  return (
    <>
      <LookHeadline part={part} look={look} verdict={verdict} busy={busy} count={balled.pins.length} />
      <PictureSource
        simulators={job.simulators}
        label="Picture of the balls"
        busy={busy}
        tookMs={tookMs}
        problem={problem}
        onFile={(file) => void lookAt(file)}
        onTake={(specimen) => void take(specimen)}
      />
      {look && verdict && (
        <Grid templateColumns={{ base: '1fr', md: 'minmax(0, 1fr) 250px' }} gap="6">
          <BallPicture
            src={look.src}
            width={look.width}
            height={look.height}
            toPicture={look.seen.toPicture}
            pitchMm={balled.pitchMm}
            sites={drawnSites(look.seen, balled)}
            bridges={look.seen.bridges.map(([a, b]) => [balled.pins.indexOf(a), balled.pins.indexOf(b)])}
            solderDebris={look.seen.crumbs.map(([x, y]) => ({ x, y }))}
            onPick={pick}
          />
          <Box>
            <Reasons verdict={verdict} crumbs={look.seen.crumbs.length} />
            {look.unlikeMm !== undefined && (
              <Text role="note" fontSize="14px" borderLeft="3px solid" borderColor="amber" pl="3" mt="2">
                The balls look unlike {balled.ballMm} mm ones, beyond what light and focus do: measure one, or take the
                picture with softer light.
              </Text>
            )}
            <Box h="130px" my="3">
              <DiameterBars
                diametersMm={look.seen.balls.filter((b) => b.state !== 'missing').map((b) => b.diameterMm)}
              />
            </Box>
            <Text fontSize="14px" color="quiet" mb="3">
              A click on a ball sets it right by hand: good, missing, small, large.
            </Text>
            <MainButton type="button" disabled={keeping || busy} onClick={keep}>
              Keep with its picture
            </MainButton>
            <Box mt="2">
              <AnswerNote answer={answer} />
            </Box>
          </Box>
        </Grid>
      )}
    </>
  );
}

function LookHeadline({
  part,
  look,
  verdict,
  busy,
  count,
}: {
  part: Part;
  look?: Look;
  verdict?: ReuseVerdict;
  busy: boolean;
  count: number;
}) {
  if (busy)
    return (
      <Headline title="Looking the picture over" aside={`${part.ref}, ${count} balls`}>
        The array is laid over it, every ball measured.
      </Headline>
    );
  if (!look || !verdict)
    return (
      <Headline title={`Show the ${count} balls of ${part.ref}`} aside={part.package}>
        From above, the whole array in the picture, the light even. Up to 24 megapixels, up to 8° askew.
      </Headline>
    );
  const unclear = look.seen.balls.filter((b) => b.unclear && !b.byHand).length;
  return (
    <Headline title={verdict.headline} aside={`${part.ref}, ${count} balls`}>
      {verdict.asItIs
        ? `All ${count} there, alike and apart: coplanarity ${(1000 * verdict.uniformity!.coplanarityMm).toFixed(0)} of ${(1000 * verdict.uniformity!.limitMm).toFixed(0)} µm.`
        : `${sentence(verdict.reasons.join(', '))}.`}{' '}
      {unclear > 0 && `${unclear} marked “?” are left to your eye.`}
    </Headline>
  );
}

const sentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

function Reasons({ verdict: { asItIs, reasons, uniformity }, crumbs }: { verdict: ReuseVerdict; crumbs: number }) {
  return (
    <>
      <Text fontWeight="700" color={asItIs ? 'leaf' : 'rust'}>
        {asItIs ? 'holds' : 'rework'}
      </Text>
      {reasons.map((reason) => (
        <Text key={reason} fontSize="15px" borderBottom="1px solid" borderColor="rule" py="1">
          {reason}
        </Text>
      ))}
      {crumbs > 0 && (
        <Text fontSize="15px" borderBottom="1px solid" borderColor="rule" py="1">
          {crumbs === 1 ? 'A bit lies' : `${crumbs} bits lie`} between the balls: brush off
        </Text>
      )}
      {uniformity && (
        <Text fontSize="14px" color="quiet" mt="1">
          Coplanarity {(1000 * uniformity.coplanarityMm).toFixed(0)} µm of {(1000 * uniformity.limitMm).toFixed(0)}
        </Text>
      )}
    </>
  );
}

const round = (value: number, digits: number): number => Number(value.toFixed(digits));

function seenOf(inspection: Inspection, { pins }: BalledPart): Seen {
  return {
    toPicture: [...inspection.toPicture],
    mmPerPx: inspection.mmPerPx,
    balls: inspection.balls.map((b, i) => ({
      pin: pins[i],
      state: b.verdict,
      diameterMm: round(Math.max(0, b.diameterMm), 4),
      sdMm: Number.isFinite(b.diameterSdMm) ? round(b.diameterSdMm, 4) : null,
      unclear: b.unclear,
      byHand: false,
    })),
    bridges: inspection.bridges.map(([a, b]) => [pins[a], pins[b]]),
    crumbs: inspection.solderDebris.map(({ x, y }): [number, number] => [round(x, 3), round(y, 3)]),
  };
}

function keptLook(kept: BallInspection | undefined): Look | undefined {
  if (!kept) return undefined;
  const [x, y] = [kept.toPicture[2], kept.toPicture[5]];
  // Kept without its size, the array is taken to lie in the middle of its picture.
  const { width = Math.round(2 * x), height = Math.round(2 * y) } = kept;
  return { src: `/pictures/${kept.sha256}`, width, height, seen: kept };
}

const STATES = ['good', 'missing', 'small', 'large'] as const;

function nextState(ball: Seen['balls'][number]): Seen['balls'][number] {
  const at = STATES.indexOf(ball.state as (typeof STATES)[number]);
  return { ...ball, state: STATES[(at + 1) % STATES.length], byHand: true };
}

const drawnSites = ({ balls }: Seen, { pattern }: BalledPart): DrawnSite[] =>
  sitesOf(pattern).map((site, i) => ({ ...site, ...balls[i] }));
