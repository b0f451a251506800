'use client';

import { useMemo, useState, useTransition } from 'react';
import { Box, Grid, Text } from '@chakra-ui/react';
import type { Part } from '@/core/board';
import type { PadInspection } from '@/core/inspect';
import { sitePads } from '@/core/site';
import type { JobView, KeepEvent, KeptPadLook } from '@/core/job';
import { judgePadLook, type PadLook } from '@/core/joints';
import { PadPicture } from '@/drawings/pad-picture';
import { AnswerNote, Headline, MainButton, PlainButton, type EntryAnswer } from '@/ui';
import { keepInspection } from './actions';
import { PictureSource, addOrigin, fetched } from './picture-source';
import { usePictureRun } from './use-picture-run';

type Seen = Pick<KeptPadLook, 'toPicture' | 'width' | 'height' | 'pads' | 'bridges'>;

/** A picture with what was seen in it, before or after it is kept. */
interface Look {
  readonly src: string;
  /** The file, while it is not kept. */
  readonly file?: File;
  readonly seen: Seen;
}

export interface PadsProps {
  readonly job: JobView;
  readonly part: Part;
  readonly onKeep: KeepEvent;
}

/** Whether the pads of a cleaned site are there, level and apart: from a picture. */
export function PadsWork({ job, part, onKeep }: PadsProps) {
  const pads = useMemo(() => sitePads(job.board.packages[part.package]), [job.board, part]);
  const kept = job.state.padLooks[part.ref];
  const [look, setLook] = useState<Look | undefined>(() => kept && { src: `/pictures/${kept.sha256}`, seen: kept });
  const [answer, setAnswer] = useState<EntryAnswer>();
  const [keeping, start] = useTransition();
  const { problem, busy, tookMs, lookAt, take } = usePictureRun({
    look: (picture) => ({ of: 'pads', picture, pads }),
    take: (specimen) => ({ of: 'pads', pads, specimen, seed: job.number + part.ref.length }),
    onBegin: () => setAnswer(undefined),
    onSeen: (reply, file) => {
      if (reply.of === 'pads')
        setLook({ src: URL.createObjectURL(file), file, seen: seenOf(reply.inspection, reply, pads) });
    },
  });
  const pick = (pin: string): void => {
    if (!look) return;
    setAnswer(undefined);
    const turned = look.seen.pads.map((p) => (p.pin === pin ? { ...p, state: NEXT[p.state], byHand: true } : p));
    setLook({ ...look, seen: { ...look.seen, pads: turned } });
  };
  const verdict = look && judgePadLook(look.seen.pads, look.seen.bridges);
  const gone = look?.seen.pads.filter((p) => p.state === 'lifted').map((p) => p.pin) ?? [];
  const keep = (): void =>
    start(async () => {
      const form = new FormData();
      const file = look!.file ?? (await fetched(look!.src));
      form.set('picture', file);
      addOrigin(form, file);
      const body = { kind: 'padLook', ...look!.seen, ref: part.ref };
      form.set('seen', JSON.stringify(body));
      setAnswer(await keepInspection(job.number, form, crypto.randomUUID()));
    });
  const enterLifted = (): void =>
    start(async () => {
      const body = { kind: 'lifted' as const, ref: part.ref, pins: gone };
      setAnswer(await onKeep(job.number, body, crypto.randomUUID()));
    });
  return (
    <>
      <PadsHeadline part={part} look={look} verdict={verdict} busy={busy} count={pads.length} />
      <PictureSource
        simulators={job.simulators}
        label="Picture of the pads"
        busy={busy}
        tookMs={tookMs}
        problem={problem}
        onFile={(file) => void lookAt(file)}
        onTake={(specimen) => void take(specimen)}
      />
      {look && verdict && (
        <Grid templateColumns={{ base: '1fr', md: 'minmax(0, 1fr) 250px' }} gap="6">
          <PadPicture
            {...look.seen}
            src={look.src}
            pads={pads.map((pad, i) => ({ ...pad, ...look.seen.pads[i] }))}
            onPick={pick}
          />
          <Box>
            <Text fontWeight="700" color={verdict.holds ? 'leaf' : 'rust'}>
              {verdict.holds ? 'holds' : 'not yet'}
            </Text>
            {verdict.reasons.map((reason) => (
              <Text key={reason} fontSize="15px" borderBottom="1px solid" borderColor="rule" py="1">
                {reason}
              </Text>
            ))}
            <Text fontSize="14px" color="quiet" my="3">
              A click on a pad sets it right by hand: even, gone, uneven. Light alone does not tell a lifted pad from
              one oxidised through.
            </Text>
            <MainButton type="button" disabled={keeping || busy} onClick={keep}>
              Keep with its picture
            </MainButton>
            {gone.length > 0 && (
              <PlainButton type="button" mt="2" disabled={keeping || busy} onClick={enterLifted}>
                Enter {gone.length === 1 ? 'pad' : 'pads'} {gone.join(', ')} as lifted
              </PlainButton>
            )}
            <Box mt="2">
              <AnswerNote answer={answer} />
            </Box>
          </Box>
        </Grid>
      )}
    </>
  );
}

const NEXT = { even: 'lifted', lifted: 'uneven', uneven: 'even' } as const;

function seenOf(
  { toPicture, pads, bridges }: PadInspection,
  { width, height }: { width: number; height: number },
  names: readonly { readonly pin: string }[],
): Seen {
  return {
    ...{ width, height, toPicture: [...toPicture] },
    pads: pads.map(({ pin, verdict, unclear }) => ({ pin, state: verdict, unclear, byHand: false })),
    bridges: bridges.map(([a, b]) => [names[a].pin, names[b].pin]),
  };
}

function PadsHeadline({
  part,
  look,
  verdict,
  busy,
  count,
}: {
  part: Part;
  look?: Look;
  verdict?: PadLook;
  busy: boolean;
  count: number;
}) {
  if (busy)
    return (
      <Headline title="Looking the picture over" aside={`${part.ref}, ${count} pads`}>
        The pads are laid over it, each looked at.
      </Headline>
    );
  if (!look || !verdict)
    return (
      <Headline title={`Show the ${count} pads of ${part.ref}`} aside={part.package}>
        After cleaning, from above, pin 1 at the top left, all pads in the picture, the light even.
      </Headline>
    );
  const unclear = look.seen.pads.filter((p) => p.unclear && !p.byHand).length;
  return (
    <Headline title={verdict.headline} aside={`${part.ref}, ${count} pads`}>
      {verdict.holds ? 'Each sends back the light of a tinned pad, alike all over, and nothing joins two. ' : ''}
      {unclear > 0 && `${unclear} marked “?” are left to your eye.`}
    </Headline>
  );
}
