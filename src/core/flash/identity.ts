import { fail, ok, type Result } from '../result';
import { formatHex } from '../units';

export interface FlashIdentity {
  /** Bank of the maker's code, 1 for those without continuation codes. */
  readonly bank: number;
  /** The maker's code with its parity bit, as read. */
  readonly maker: number;
  readonly deviceType: number;
  readonly sizeBytes: number;
}

/** Continuation code before a maker's code of a later bank. Source: JEP106. */
const CONTINUED = 0x7f;
const MOST_CAPACITY_LOG2 = 34;

const ones = (byte: number): number => byte.toString(2).replaceAll('0', '').length;

/**
 * What the identification says: the maker's bank and code (JEP106: seven bits and odd parity), type and capacity, of which
 * the capacity as a power of two is common practice.
 */
export function readIdentity(bytes: ArrayLike<number>): Result<FlashIdentity> {
  const list = Array.from(bytes);
  if (list.length < 3) return fail(`Expected at least 3 bytes of identification; got ${list.length}.`);
  if (list.every((b) => b === 0xff))
    return fail('Expected an identification; got all FF: no chip answers. Look at contact, supply and select.');
  if (list.every((b) => b === 0))
    return fail('Expected an identification; got all 00: the data line is held low, or has no contact.');
  const first = list.findIndex((b) => b !== CONTINUED);
  const continued = first < 0 ? list.length : first;
  const [maker, deviceType, capacity] = list.slice(continued);
  if (maker === undefined || deviceType === undefined || capacity === undefined)
    return fail(
      `Expected maker, type and capacity after the continuation codes; got ${list.length - continued} bytes.`,
    );
  if (ones(maker) % 2 === 0)
    return fail(
      `Expected a maker's code with odd parity; got ${formatHex(maker, 2)}: a bit is wrong, look at the contact.`,
    );
  if (capacity < 10 || capacity > MOST_CAPACITY_LOG2)
    return fail(`Expected a capacity from 0A (1 KiB) to 22 (16 GiB); got ${formatHex(capacity, 2)}.`);
  return ok({ bank: continued + 1, maker, deviceType, sizeBytes: 2 ** capacity });
}
