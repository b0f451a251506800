'use client';

import { useRef, useState } from 'react';
import { SupplyLost, openFlash, type Opened, type Programmer } from '@/core/flash';
import { problemText, type Result } from '@/core/result';
import { SimulatedProgrammer, type ProgrammerTrouble } from '@/devices/programmer';

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

export const CLIPS: Readonly<Record<string, Clip>> = {
  well: { name: 'sits well', trouble: {} },
  dirty: { name: 'on dirty pads', trouble: { bitErrorRate: 1e-5 } },
  loose: { name: 'barely touches', trouble: { bitErrorRate: 0.06 } },
  line: { name: 'one address line held', trouble: { stuckAddressBit: 15 } },
  off: { name: 'touches nothing', trouble: { absent: true } },
  dip: { name: 'supply dips in mid-write', trouble: {}, dipAfterReadsMs: 60 },
  guarded: { name: 'blocks protected', trouble: {}, status: 0b0100 },
  worn: { name: 'a sector worn out', trouble: {}, isWorn: true },
};

export const BLANK = 'blank';
/** What the simulated programmer reads in a ms. */
const READ_BYTES_PER_MS = 2000;

interface OnClip {
  /** How the clip sits: one of {@link CLIPS}. */
  readonly clip: string;
  /** Which image the chip holds at first, or {@link BLANK}. */
  readonly onClip: string;
  readonly times: number;
  readonly sizeBytes: number;
}

/** A chip on the simulated programmer's clip; it keeps what was written to it as long as it is not exchanged. */
export function useSimulatedChip({ clip, onClip, times, sizeBytes }: OnClip) {
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const chip = useRef<{ sha256: string; programmer: SimulatedProgrammer } | null>(null);

  async function programmer(target?: Uint8Array): Promise<Programmer> {
    if (chip.current?.sha256 !== onClip) {
      const content = onClip === BLANK ? new Uint8Array(sizeBytes).fill(0xff) : await keptBytes(onClip);
      chip.current = { sha256: onClip, programmer: new SimulatedProgrammer(content) };
    }
    const { trouble, dipAfterReadsMs, status = 0, isWorn } = CLIPS[clip];
    const readsMs = (times * sizeBytes) / READ_BYTES_PER_MS;
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
  return { problem, busy, onChip };
}

/** A cell that has to change for an image and is worn: none where nothing needs an erase. */
function wornCell(cells: Uint8Array, target: Uint8Array): number | undefined {
  const at = target.findIndex((b, i) => (b & ~cells[i] & 0x10) !== 0);
  return at < 0 ? undefined : at;
}

/** A kept image, by its hash. */
export const keptBytes = async (sha256: string): Promise<Uint8Array> =>
  new Uint8Array(await (await fetch(`/images/${sha256}`)).arrayBuffer());
