import { fail, ok, type Result } from '../result';
import { formatOffset } from '../units';
import { protectedFrom, usualChip, withoutProtection, type FlashChip } from './chip';
import { readIdentity, type FlashIdentity } from './identity';
import type { Programmer } from './programmer';
import { judgeReads, type ReadVerdict } from './reads';
import { chipOf, readSfdp } from './sfdp';
import { planWrite, type WritePlan } from './write-plan';

export interface Opened {
  readonly identity: FlashIdentity;
  readonly chip: FlashChip;
  /** What the discovery table was missing, where it was not read. */
  readonly without?: string;
}

/** So many bytes hold a basic discovery table. */
const DISCOVERY_BYTES = 256;
/** Bytes read between two looks at whether to go on. */
const READ_BYTES = 65536;
/** A write that does not verify is tried again so often: more only wears the chip. */
const TRIES = 3;

/** Tells the share that is done; answers true to stop. */
export type Progress = (done: number) => boolean;

/** Identifies a chip and learns its erases. */
export async function openFlash(programmer: Programmer): Promise<Result<Opened>> {
  const identity = readIdentity(await programmer.identify());
  if (!identity.ok) return identity;
  const usual = usualChip(identity.value.sizeBytes);
  const table = readSfdp(await programmer.discovery(DISCOVERY_BYTES));
  if (!table.ok) return ok({ identity: identity.value, chip: usual, without: table.problems[0].message });
  if (table.value.sizeBytes !== identity.value.sizeBytes)
    return fail(
      `Expected one capacity; the identification says ${identity.value.sizeBytes.toLocaleString('en')} bytes, the discovery table ${table.value.sizeBytes.toLocaleString('en')}: a misread, look at the contact.`,
    );
  return ok({ identity: identity.value, chip: chipOf(table.value, usual) });
}

/** Reads a whole chip several times and puts the reads together. */
export async function readFlash(
  programmer: Programmer,
  chip: FlashChip,
  times: number,
  onProgress: Progress = () => false,
): Promise<Result<ReadVerdict>> {
  const reads: Uint8Array[] = [];
  for (let k = 0; k < times; k++) {
    const bytes = new Uint8Array(chip.sizeBytes);
    for (let at = 0; at < chip.sizeBytes; at += READ_BYTES) {
      if (onProgress((k + at / chip.sizeBytes) / times)) return fail('Stopped; nothing was kept.');
      bytes.set(await programmer.read(at, Math.min(READ_BYTES, chip.sizeBytes - at)), at);
    }
    reads.push(bytes);
  }
  return ok(judgeReads(reads));
}

export interface Written {
  readonly plan: WritePlan;
  readonly tries: number;
  /** Protection was taken off for the write and put back. */
  readonly protection: boolean;
}

/**
 * Brings a chip to an image. What it holds is read and kept before the first bit is changed; what is written is planned
 * from what the chip really holds, so that the same call goes on after an interruption; the end is read back and compared.
 * @param keepOriginal keeps what was there and answers when it is safe; leave it out only when that was kept before.
 * @throws SupplyLost where the supply goes away in the middle.
 */
export async function writeFlash(
  programmer: Programmer,
  chip: FlashChip,
  target: Uint8Array,
  { keepOriginal, reads = 3, onProgress = () => false }: WriteOptions,
): Promise<Result<Written>> {
  if (target.length !== chip.sizeBytes)
    return fail(
      `Expected an image of ${chip.sizeBytes.toLocaleString('en')} bytes for this chip; got ${target.length.toLocaleString('en')}.`,
    );
  const before = await readFlash(programmer, chip, reads);
  if (!before.ok) return before;
  if (!before.value.good) return fail(`Not written: ${before.value.summary}`);
  if (keepOriginal) await keepOriginal(before.value.bytes);
  const status = await programmer.status();
  const plan = planWrite(chip, before.value.bytes, target);
  const bound = protectedFrom(status, chip.sizeBytes);
  const protection = plan.steps.some((s) => s.offset + (s.kind === 'erase' ? s.erase.bytes : s.bytes.length) > bound);
  if (protection) await programmer.writeStatus(withoutProtection(status));
  let current = before.value.bytes;
  for (let tries = 1; tries <= TRIES; tries++) {
    const todo = tries === 1 ? plan : planWrite(chip, current, target);
    const done = await carryOut(programmer, todo, onProgress);
    if (!done.ok) return done;
    const after = await readFlash(programmer, chip, reads);
    if (!after.ok) return after;
    if (!after.value.good) return fail(`Written but not proven: ${after.value.summary}`);
    current = after.value.bytes;
    if (firstDifference(current, target) < 0) {
      if (protection) await programmer.writeStatus(status);
      return ok({ plan, tries, protection });
    }
  }
  const at = firstDifference(current, target);
  const sector = at - (at % chip.erases[0].bytes);
  return fail(
    `Expected the image after ${TRIES} tries; the sector at ${formatOffset(sector)} does not take it, first at ${formatOffset(at)}: worn out or write-protected by a pin. Use another chip.`,
  );
}

export interface WriteOptions {
  readonly keepOriginal?: (bytes: Uint8Array) => Promise<void>;
  readonly reads?: number;
  readonly onProgress?: Progress;
}

async function carryOut(programmer: Programmer, { steps }: WritePlan, onProgress: Progress): Promise<Result<true>> {
  for (const [k, step] of steps.entries()) {
    if (onProgress(k / steps.length))
      return fail('Stopped in mid-write: the chip holds neither image. Write again, or write the original back.');
    if (step.kind === 'erase') await programmer.erase(step.offset, step.erase.bytes);
    else await programmer.program(step.offset, step.bytes);
  }
  return ok(true);
}

function firstDifference(a: Uint8Array, b: Uint8Array): number {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return i;
  return -1;
}
