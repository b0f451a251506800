'use client';

import { useState, useTransition, type ReactNode } from 'react';
import { Box, Flex, Grid, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import { partByRef, type Part, type Slot } from '@/core/board';
import type { JobView } from '@/core/job';
import {
  STRAP_TOTAL_OHM,
  decodeStrap,
  designOneResistor,
  designStrap,
  strapWords,
  type StrapDesign,
  type StrapWish,
} from '@/core/parts';
import type { Result } from '@/core/result';
import { E_SERIES, formatNominalOhm, parseFigure, type ESeries } from '@/core/units';
import { strapValues } from '@/core/sourcing';
import { BoardDrawing } from '@/drawings/board-drawing';
import { StrapScale } from '@/drawings/strap-scale';
import { Headline, Named, PlainButton, ProblemNote, SelectBox, TextInput } from '@/ui';
import { keepStrapSettings } from './actions';
import type { Straps } from './queries';

export interface StrapsWorkProps {
  readonly job: JobView;
  /** The place that the job is about. */
  readonly asked: string | undefined;
  readonly straps: Straps;
}

/** What a divider tells its chip, and the resistors that would tell it something else. */
export function StrapsWork({ job, asked, straps }: StrapsWorkProps) {
  const strapped = job.board.slots.filter((s) => s.straps);
  const [ref, setRef] = useState(strapped.find((s) => s.ref === asked)?.ref ?? strapped[0]?.ref);
  const slot = strapped.find((s) => s.ref === ref);
  if (!slot)
    return <Headline title="No straps">The board file lists no divider that tells a chip its position.</Headline>;
  const places = strapped.map((s) => [s.ref, `${s.ref}, ${s.position ?? 'no position'}`] as const);
  return (
    <StrapDesk key={slot.ref} job={job} slot={slot} straps={straps}>
      <Named name="Place">
        <SelectBox value={slot.ref} options={places} onChange={setRef} />
      </Named>
    </StrapDesk>
  );
}

function StrapDesk({ job, slot, straps, children }: { job: JobView; slot: Slot; straps: Straps; children: ReactNode }) {
  const top = partByRef(job.board, slot.straps!.top)!;
  const bottom = partByRef(job.board, slot.straps!.bottom)!;
  const codes = straps.codes.filter((c) => c.positions[slot.position ?? ''] !== undefined);
  const other = codes.find((c) => c.typeId !== slot.type) ?? codes[0];
  const [typeId, setTypeId] = useState(other?.typeId ?? '');
  const [series, setSeries] = useState<ESeries>(straps.strapSeries);
  const [percent, setPercent] = useState(String(100 * straps.strapTolerance));
  const [drawer, setDrawer] = useState(straps.drawerOhm.map(ohmText).join(' '));
  const code = codes.find((c) => c.typeId === typeId);
  if (!code)
    return (
      <Headline title={`No code for ${slot.ref}`}>
        No part type in the library reads {slot.position} from straps.
      </Headline>
    );

  const tolerance = Number(percent) / 100;
  const drawerOhm = drawer
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(ohmOf);
  const problem = inputProblem(tolerance, drawerOhm, drawer);
  const known = drawerOhm.filter((v) => v !== undefined);
  const now = { topOhm: top.ohm!, bottomOhm: bottom.ohm! };
  const wish: StrapWish = {
    bins: code.bins,
    bin: code.positions[slot.position!],
    tolerance,
    values: known.length > 0 ? known : strapValues(series),
    totalOhm: STRAP_TOTAL_OHM,
    now,
  };
  const read = decodeStrap({ ...now, tolerance }, code.bins);
  const right = read.sure && read.bin === wish.bin;
  const one = designOneResistor(wish);
  const pair = designStrap(wish);
  const answer = one.ok ? one : pair;
  const changed = right ? [] : changedParts(answer, top, bottom);
  return (
    <>
      <Headline title={headline(right, answer, top, bottom)} aside={slot.position}>
        {typeId} reads bin {read.bin} of {code.bins} from {top.ref} and {bottom.ref} now; {slot.position} is bin{' '}
        {wish.bin}.
      </Headline>
      {problem && <ProblemNote text={problem} />}
      <Flex gap="5" wrap="wrap" align="flex-end" mb="3" fontSize="14px">
        {children}
        <Named name="Chip">
          <SelectBox value={typeId} options={codes.map((c) => [c.typeId, c.typeId])} onChange={setTypeId} />
        </Named>
        <Named name="Series">
          <SelectBox value={series} options={E_SERIES.map((s) => [s, s])} onChange={(s) => setSeries(s as ESeries)} />
        </Named>
        <Named name="Tolerance, %">
          <TextInput w="5em" fontFamily="mono" value={percent} onChange={(e) => setPercent(e.target.value)} />
        </Named>
        <Named name="Or only what is in the drawer">
          <TextInput
            w="17em"
            fontFamily="mono"
            value={drawer}
            placeholder="10k 22k 47k"
            onChange={(e) => setDrawer(e.target.value)}
          />
        </Named>
        <KeepStraps
          settings={{ strapSeries: series, strapTolerance: tolerance, drawerOhm: known }}
          disabled={problem !== undefined}
        />
      </Flex>
      <StrapScale
        bins={code.bins}
        wanted={wish.bin}
        now={read}
        design={!right && answer.ok ? answer.value : undefined}
      />
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} gap="5" my="3" fontSize="15px">
        <DesignPart title="One resistor changed" design={one} top={top} bottom={bottom} />
        <DesignPart title="Both free" design={pair} top={top} bottom={bottom} />
      </Grid>
      <Box position="relative" flex="1" minH="240px" display="flex">
        <BoardDrawing
          board={job.board}
          lit={[slot.ref, ...changed]}
          marks={[top, bottom].map((p) => ({
            name: p.ref,
            xMm: p.xMm,
            yMm: p.yMm,
            side: p.side,
            state: changed.includes(p.ref) ? ('asked' as const) : ('plain' as const),
          }))}
        />
      </Box>
    </>
  );
}

function headline(right: boolean, design: Result<StrapDesign>, top: Part, bottom: Part): string {
  if (right) return 'The straps are right as they are';
  if (!design.ok) return 'No resistors here give that bin for sure';
  return changesOf(design.value, top, bottom).map(strapWords).join('; ');
}

const changesOf = (design: StrapDesign, top: Part, bottom: Part) =>
  [
    { ref: top.ref, fromOhm: top.ohm!, toOhm: design.topOhm },
    { ref: bottom.ref, fromOhm: bottom.ohm!, toOhm: design.bottomOhm },
  ].filter((c) => c.fromOhm !== c.toOhm);

const changedParts = (design: Result<StrapDesign>, top: Part, bottom: Part): string[] =>
  design.ok ? changesOf(design.value, top, bottom).map((c) => c.ref) : [];

/** A design with its worst case; where there is none, why. */
function DesignPart({
  title,
  design,
  top,
  bottom,
}: {
  title: string;
  design: Result<StrapDesign>;
  top: Part;
  bottom: Part;
}) {
  return (
    <Box>
      <Text fontSize="13px" fontWeight="700" color="quiet">
        {title}
      </Text>
      {design.ok ? (
        <>
          <Text fontFamily="mono" fontWeight="700" fontSize="18px">
            {top.ref} {formatNominalOhm(design.value.topOhm)}, {bottom.ref} {formatNominalOhm(design.value.bottomOhm)}
          </Text>
          <Text fontSize="14px" color="quiet">
            {percentWords(design.value.share)} of the supply, {percentWords(design.value.lowest)} to{' '}
            {percentWords(design.value.highest)} at the worst corners.
          </Text>
        </>
      ) : (
        <Text fontSize="14px">{design.problems[0].message}</Text>
      )}
    </Box>
  );
}

const percentWords = (share: number): string => `${(100 * share).toFixed(1)} %`;

function KeepStraps({ settings, disabled }: { settings: object; disabled: boolean }) {
  const [answer, setAnswer] = useState<ActionResult>();
  const [busy, start] = useTransition();
  return (
    <Flex gap="3" align="baseline">
      <PlainButton
        type="button"
        disabled={busy || disabled}
        onClick={() => start(async () => setAnswer(await keepStrapSettings(settings)))}
      >
        Keep for this bench
      </PlainButton>
      {answer && (
        <Text role="status" color={answer.saved ? 'leaf' : 'rust'}>
          {answer.message}
        </Text>
      )}
    </Flex>
  );
}

/** `47k`, `4k7`, `330`: ohm; undefined where it is no resistance that a strap could have. */
function ohmOf(text: string): number | undefined {
  const figure = parseFigure(text);
  return figure.ok && figure.value >= 1 && figure.value <= 1e7 ? figure.value : undefined;
}

const ohmText = (ohm: number): string => (ohm >= 1000 ? `${ohm / 1000}k` : String(ohm));

function inputProblem(tolerance: number, drawer: readonly (number | undefined)[], text: string): string | undefined {
  if (!(tolerance >= 0.001 && tolerance <= 0.2))
    return `Expected a tolerance from 0.1 to 20 %; got ${(100 * tolerance).toFixed(1)} %.`;
  return drawer.includes(undefined) ? `Expected resistances such as 10k 22k 47k; got "${text}".` : undefined;
}
