'use client';

import { useRef, useState } from 'react';
import { Box, Flex, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import {
  SupplyLost,
  openFlash,
  readFlash,
  writeFlash,
  type Opened,
  type Programmer,
  type ReadVerdict,
  type Written,
} from '@/core/flash';
import { judgeImage, signsOf, type ImageFamily } from '@/core/image';
import type { JobView } from '@/core/job';
import { problemText, type Result } from '@/core/result';
import { formatBytes, formatHex, formatSeconds } from '@/core/units';
import { SimulatedProgrammer, type ProgrammerTrouble } from '@/devices/programmer';
import { UnstableStrip } from '@/drawings/unstable-strip';
import { MainButton, PlainButton, ProblemNote, SelectBox } from '@/ui';
import { keepDump, keepOriginal, markWritten } from './actions';
import type { ImageBench } from './queries';

/** How the clip of the simulated programmer sits, and what is at its end. */
interface Clip {
  readonly name: string;
  readonly trouble: ProgrammerTrouble;
  /** The supply goes away so many ms after the reads before a write. */
  readonly dipAfterReadsMs?: number;
  /** The chip's status register: protected blocks. */
  readonly status?: number;
  /** The first sector that a write has to erase does not let go any more. */
  readonly isWorn?: true;
}

const CLIPS: Readonly<Record<string, Clip>> = {
  well: { name: 'sits well', trouble: {} },
  dirty: { name: 'on dirty pads', trouble: { bitErrorRate: 1e-5 } },
  loose: { name: 'barely touches', trouble: { bitErrorRate: 0.06 } },
  line: { name: 'one address line held', trouble: { stuckAddressBit: 15 } },
  off: { name: 'touches nothing', trouble: { absent: true } },
  dip: { name: 'supply dips in mid-write', trouble: {}, dipAfterReadsMs: 60 },
  guarded: { name: 'blocks protected', trouble: {}, status: 0b0100 },
  worn: { name: 'a sector worn out', trouble: {}, isWorn: true },
};

const BLANK = 'blank';
/** What the simulated programmer reads in a ms. */
const READ_BYTES_PER_MS = 2000;

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
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  // The chip keeps what was written to it as long as it is not exchanged.
  const chip = useRef<{ sha256: string; programmer: SimulatedProgrammer } | null>(null);
  const { merged, before } = bench.roles;

  async function programmer(target?: Uint8Array): Promise<Programmer> {
    if (chip.current?.sha256 !== onClip) {
      const content = onClip === BLANK ? new Uint8Array(family.sizeBytes).fill(0xff) : await keptBytes(onClip);
      chip.current = { sha256: onClip, programmer: new SimulatedProgrammer(content) };
    }
    const { trouble, dipAfterReadsMs, status = 0, isWorn } = CLIPS[clip];
    const readsMs = (Number(times) * family.sizeBytes) / READ_BYTES_PER_MS;
    const dip = dipAfterReadsMs === undefined ? {} : { supplyLostAtMs: readsMs + dipAfterReadsMs };
    const at = chip.current.programmer;
    const worn = isWorn && target ? { wornSector: wornCell(at.cells, target) } : {};
    at.mended({ ...trouble, ...dip, ...worn });
    at.statusBits = status;
    return at;
  }
  /** Runs something on the chip, its problem shown. */
  async function onChip<T>(
    work: (at: Programmer, opened: Opened) => Promise<Result<T>>,
    target?: Uint8Array,
  ): Promise<T | undefined> {
    setBusy(true);
    setProblem(undefined);
    try {
      const at = await programmer(target);
      const opened = await openFlash(at);
      const done = opened.ok ? await work(at, opened.value) : opened;
      if (done.ok) return done.value;
      setProblem(problemText(done.problems));
    } catch (error) {
      setProblem(
        error instanceof SupplyLost
          ? 'The supply went away. If a write was on, the chip holds neither image now; what it held before is kept. Mend the supply and write again: it goes on from what the chip holds.'
          : `The programmer stopped: ${(error as Error).message}.`,
      );
    } finally {
      setBusy(false);
    }
    return undefined;
  }
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

/** A cell that has to change for an image and is worn: none where nothing needs an erase. */
function wornCell(cells: Uint8Array, target: Uint8Array): number | undefined {
  const at = target.findIndex((b, i) => (b & ~cells[i] & 0x10) !== 0);
  return at < 0 ? undefined : at;
}

const keptBytes = async (sha256: string): Promise<Uint8Array> =>
  new Uint8Array(await (await fetch(`/images/${sha256}`)).arrayBuffer());

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
        {verdict.words}
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
