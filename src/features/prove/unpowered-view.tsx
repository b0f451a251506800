'use client';

import { useMemo } from 'react';
import { Box, Flex, Grid, Text } from '@chakra-ui/react';
import { partByRef } from '@/core/board';
import { entryStem, readingName, valueLabel } from '@/core/diagnose';
import { jointStem, type JobView, type JointWalk, type WalkJoint } from '@/core/job';
import { formatDrop } from '@/core/units';
import { LandsDrawing } from '@/drawings/lands-drawing';
import { PageLink, useEntryOffer } from '@/ui';
import { ProofLine, SectionTitle } from './proof-line';
import { proveHref } from './view';

/** Before any power: the shorts that were there, and each placed part, joint by joint. */
export function UnpoweredView({ job, walk }: { job: JobView; walk?: JointWalk }) {
  return (
    <>
      <ShortLines job={job} />
      {walk ? (
        <WalkPart job={job} walk={walk} />
      ) : (
        <Text color="quiet">No part was soldered on in this job: there is no joint to touch.</Text>
      )}
    </>
  );
}

/** Every net that read as a short, with what it read and what it reads now. */
function ShortLines({ job: { proof, readings, board } }: { job: JobView }) {
  if (proof.shorts.length === 0) return null;
  return (
    <Box mb="4">
      <SectionTitle>Shorts that were there</SectionTitle>
      {proof.shorts.map(({ net, gone, expected }) => {
        const m = { kind: 'groundResistance', net } as const;
        const of = readings.filter((r) => r.measurement.kind === 'groundResistance' && r.measurement.net === net);
        const last = of.at(-1);
        const before = of.find((r) => r.meaning.state === 'bad');
        return (
          <ProofLine
            key={net}
            name={`${readingName(board, m)}, was ${before ? valueLabel(m, before.raw) : 'a short'}; a good board reads ${expected}`}
            figure={gone === undefined || !last ? '' : last.value}
            state={gone}
            stem={entryStem(board, m)}
          />
        );
      })}
    </Box>
  );
}

/** Joints that are listed beside the drawing: the bad ones, the last ones read, the next ones. */
const LISTED_READ = 3;
const LISTED_OPEN = 7;

function WalkPart({ job, walk }: { job: JobView; walk: JointWalk }) {
  const { board, proof } = job;
  const { offerText } = useEntryOffer();
  const part = partByRef(board, walk.ref)!;
  const touched = useMemo(() => marksOf(part.pins, walk), [part.pins, walk]);
  const read = walk.joints.filter((j) => j.verdict && j.verdict.state !== 'bad');
  const open = walk.joints.filter((j) => j.value === undefined);
  const from = Math.max(
    0,
    open.findIndex((j) => j.pin === walk.next?.pin),
  );
  const pick = (pin: string): void => {
    const joint = walk.joints.find((j) => j.pin === pin) ?? walk.joints.find((j) => j.net === part.pins[pin]);
    if (joint) offerText(`${joint.value ? 'fix ' : ''}${jointStem(walk.ref, joint.pin)}`);
  };
  return (
    <Grid
      templateColumns={{ base: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) minmax(0, 1.25fr)' }}
      gap="5"
      flex="1"
      minH="0"
    >
      <LandsDrawing board={board} part={part} touched={touched} onPick={pick} />
      <Box overflowY="auto" minH="0" tabIndex={0} role="region" aria-label={`Joints of ${walk.ref}`}>
        <Flex justify="space-between" align="baseline" gap="3">
          <SectionTitle>{`${walk.ref}, ${walk.readCount} of ${walk.joints.length} joints`}</SectionTitle>
          {proof.joints.length > 1 && (
            <Flex gap="3" fontSize="14px">
              {proof.joints.map((w) => (
                <PageLink
                  key={w.ref}
                  href={proveHref('unpowered', { part: w.ref })}
                  scroll={false}
                  aria-current={w.ref === walk.ref ? 'page' : undefined}
                  style={{ fontWeight: w.ref === walk.ref ? 700 : 400, textDecoration: 'underline' }}
                >
                  {w.ref}
                </PageLink>
              ))}
            </Flex>
          )}
        </Flex>
        <ProofLine
          name={walk.flat ? `Flat on the board: ${walk.flat.summary}` : 'Flat on the board: four corner heights'}
          figure=""
          state={walk.flat?.holds}
          stem={`flat ${walk.ref.toLowerCase()} `}
        />
        {[...walk.bad, ...read.slice(-LISTED_READ), ...open.slice(from, from + LISTED_OPEN)].map((j) => (
          <JointLine key={j.pin} joint={j} isNext={j.pin === walk.next?.pin} onPick={pick} />
        ))}
      </Box>
    </Grid>
  );
}

/** Marks by pad; a ball that was read marks all balls of its net. */
function marksOf(
  pins: Readonly<Record<string, string>>,
  { joints, next }: JointWalk,
): ReadonlyMap<string, 'good' | 'bad' | 'next'> {
  const marks = new Map<string, 'good' | 'bad' | 'next'>();
  for (const joint of joints) {
    const mark = joint.pin === next?.pin ? 'next' : joint.verdict?.state;
    if (!mark) continue;
    const alike = joint.instead ? Object.keys(pins).filter((pin) => pins[pin] === joint.net) : [joint.pin];
    alike.forEach((pin) => marks.set(pin, mark));
  }
  return marks;
}

function JointLine({
  joint: { pin, net, value, verdict, expected, instead },
  isNext,
  onPick,
}: {
  joint: WalkJoint;
  isNext: boolean;
  onPick: (pin: string) => void;
}) {
  const figure = value === undefined ? '' : value.kind === 'open' ? 'open' : formatDrop(value.value);
  const colour = verdict ? (verdict.state === 'bad' ? 'rust' : 'leaf') : 'quiet';
  return (
    <Box
      as="button"
      display="block"
      w="100%"
      textAlign="left"
      py="1"
      px="1"
      borderTop="1px solid"
      borderColor="rule"
      bg={isNext ? 'ground' : undefined}
      cursor="pointer"
      onClick={() => onPick(pin)}
    >
      <Flex justify="space-between" gap="3" align="baseline">
        <Text as="span" fontWeight={isNext ? '700' : '400'} color={isNext ? 'copperText' : 'ink'}>
          <Box as="span" fontFamily="mono" display="inline-block" minW="3.2em">
            {pin}
          </Box>
          {net}
          {instead && (
            <Text as="span" color="quiet">
              {' '}
              at {instead.name}
            </Text>
          )}
        </Text>
        <Text as="span" fontFamily="mono" fontWeight="700" color={colour} whiteSpace="nowrap">
          {figure || (isNext ? 'next' : '')}
        </Text>
      </Flex>
      <Text fontSize="13px" color={verdict?.state === 'bad' ? 'rust' : 'quiet'}>
        {verdict?.state === 'bad' ? `${verdict.label}. ` : ''}
        Good boards: {expected}.
      </Text>
    </Box>
  );
}
