'use client';

import { useState } from 'react';
import { Box, Flex, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import { readFlash, writeFlash, type Opened, type ReadVerdict, type Written } from '@/core/flash';
import { judgeImage, signsOf, type ImageFamily } from '@/core/image';
import type { JobView } from '@/core/job';
import { formatBytes, formatHex, formatSeconds } from '@/core/units';
import { UnstableStrip } from '@/drawings/unstable-strip';
import { MainButton, PlainButton, ProblemNote, SelectBox } from '@/ui';
import { keepDump, keepOriginal, markWritten } from './actions';
import type { ImageBench } from './queries';
import { BLANK, CLIPS, keptBytes, useSimulatedChip } from './use-simulated-chip';

const READS = ['2', '3', '5', '7'] as const;

interface ProgrammerProps {
  readonly job: JobView;
  readonly part: string;
  readonly bench: ImageBench;
  readonly family: ImageFamily;
  readonly onAnswer: (answer: ActionResult) => void;
}

interface Read {
  readonly opened: Opened;
  readonly verdict: ReadVerdict;
}

/** What the simulated programmer read, said so. */
function simulatedForm(bytes: Uint8Array, name: string): FormData {
  const form = dumpForm(bytes, name);
  form.set('origin', JSON.stringify({ kind: 'simulated', by: 'simulated programmer' }));
  return form;
}

/** The chip on the programmer's clip: read several times and judged, written with the least erases, read back. */
export function ProgrammerPart({ job, part, bench, family, onAnswer }: ProgrammerProps) {
  const [clip, setClip] = useState('well');
  const [times, setTimes] = useState<string>('3');
  const [onClip, setOnClip] = useState(bench.roles.patient?.sha256 ?? bench.library[0]?.sha256 ?? '');
  const [read, setRead] = useState<Read>();
  const [written, setWritten] = useState<Written>();
  const held = { clip, onClip, times: Number(times), sizeBytes: family.sizeBytes };
  const { problem, busy, onChip } = useSimulatedChip(held);
  const { merged, before } = bench.roles;

  async function readNow(): Promise<void> {
    setRead(undefined);
    setWritten(undefined);
    const seen = await onChip(async (at, opened) => {
      const verdict = await readFlash(at, opened.chip, Number(times));
      return verdict.ok ? { ok: true, value: { opened, verdict: verdict.value } } : verdict;
    });
    setRead(seen);
  }
  async function write(sha256: string): Promise<void> {
    setWritten(undefined);
    const target = await keptBytes(sha256);
    const keep = async (bytes: Uint8Array): Promise<void> => {
      const kept = await keepOriginal(job.number, part, simulatedForm(bytes, 'before.bin'));
      if (!kept.saved) throw new Error(kept.message);
    };
    const done = await onChip(
      (at, opened) => writeFlash(at, opened.chip, target, { keepOriginal: keep, reads: Number(times) }),
      target,
    );
    setWritten(done);
    if (done) onAnswer(await markWritten(job.number, part, sha256));
  }
  const keepRead = async (): Promise<void> =>
    onAnswer(await keepDump(job.number, 'patient', simulatedForm(read!.verdict.bytes, `${part} read ${times} times`)));
  return (
    <Box as="section" aria-label="The chip on the programmer" borderTop="1px solid" borderColor="rule" pt="2" mb="3">
      <Flex gap="3" align="center" wrap="wrap" fontSize="14px">
        <Text fontWeight="700">Simulated programmer</Text>
        <SelectBox
          label={`Held by ${part} on the simulated clip`}
          value={onClip}
          options={[...bench.library.map((i) => [i.sha256, i.name] as const), [BLANK, 'a blank chip'] as const]}
          onChange={setOnClip}
        />
        <SelectBox
          label="The clip"
          value={clip}
          options={Object.entries(CLIPS).map(([id, { name }]) => [id, name] as const)}
          onChange={setClip}
        />
        <SelectBox
          label="Reads"
          value={times}
          options={READS.map((n) => [n, `${n} reads`] as const)}
          onChange={setTimes}
        />
        <PlainButton type="button" disabled={busy || onClip === ''} onClick={() => void readNow()}>
          Identify and read {part}
        </PlainButton>
        {merged?.verdict.sound && (
          <MainButton type="button" disabled={busy} onClick={() => void write(merged.sha256)}>
            Write the new image
          </MainButton>
        )}
        {before && (
          <PlainButton type="button" disabled={busy} onClick={() => void write(before.sha256)}>
            Write back what it held before
          </PlainButton>
        )}
      </Flex>
      {problem && <ProblemNote text={problem} />}
      {job.state.writing && !problem && !busy && (
        <Text mt="1" fontSize="14px" color="rust">
          A write was broken off: write again, or write back what the chip held before.
        </Text>
      )}
      {read && <ReadNote read={read} family={family} families={bench.families} onKeep={() => void keepRead()} />}
      {written && <WrittenNote written={written} part={part} />}
    </Box>
  );
}

function dumpForm(bytes: Uint8Array, name: string): FormData {
  const form = new FormData();
  form.set('dump', new File([Uint8Array.from(bytes)], name));
  return form;
}

/** A read that had to be outvoted holds, but asks for a better contact. */
const toneOf = ({ good, unstableBytes }: ReadVerdict): string =>
  good ? (unstableBytes > 0 ? 'copperText' : 'leaf') : 'rust';

function ReadNote({
  read,
  family,
  families,
  onKeep,
}: {
  read: Read;
  family: ImageFamily;
  families: readonly ImageFamily[];
  onKeep: () => void;
}) {
  const { verdict, opened } = read;
  const signs = signsOf(family, families, verdict.bytes);
  const { troubles, sound } = judgeImage(family, verdict.bytes);
  const hex = formatHex(opened.identity.maker, 2);
  return (
    <Box mt="2" fontSize="14px">
      <Text fontSize="17px" fontWeight="700" color={toneOf(verdict)}>
        {verdict.summary}
      </Text>
      {verdict.unstableBytes > 0 && (
        <UnstableStrip offsets={verdict.unstable.map((u) => u.offset)} length={verdict.bytes.length} />
      )}
      <Text color="quiet">
        Maker {hex} of bank {opened.identity.bank}, {formatBytes(opened.chip.sizeBytes)}, erases of{' '}
        {opened.chip.erases.map((e) => formatBytes(e.bytes)).join(', ')}.
      </Text>
      {verdict.good && (
        <>
          {[...new Set([...signs.map((s) => s.words), ...troubles])].map((words) => (
            <Text key={words} color="rust">
              {words}
            </Text>
          ))}
          {sound && <Text color="leaf">Its checksums hold.</Text>}
          <PlainButton type="button" mt="1" onClick={onKeep}>
            Keep as the patient’s dump
          </PlainButton>
        </>
      )}
    </Box>
  );
}

function WrittenNote({ written: { plan, tries, protection }, part }: { written: Written; part: string }) {
  const erases = plan.steps.filter((s) => s.kind === 'erase').length;
  return (
    <Text mt="2" color="leaf" fontSize="17px" fontWeight="700">
      {part} written and read back the same: {erases} {erases === 1 ? 'erase' : 'erases'}, {plan.pages}{' '}
      {plan.pages === 1 ? 'page' : 'pages'},{' '}
      {plan.tookMs < 1000 ? `${Math.ceil(plan.tookMs)} ms` : formatSeconds(plan.tookMs / 1000)}
      {tries > 1 && `, in ${tries} tries`}
      {protection && ', protection opened and closed again'}. What it held before is kept.
    </Text>
  );
}
