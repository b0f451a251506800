import { failAll, ok, type Problem, type Result } from '../result';
import type { CaptureReading } from './capture';
import { decodeHeader } from './objects';
import { readPacket, type PdPacket } from './packet';
import type { OrderedSet } from './symbols';

/** Messages without a time are set this far apart, s. */
const APART_S = 0.001;
const MOST_LINES = 4000;

const SETS: Readonly<Record<string, OrderedSet>> = {
  sop: 'SOP',
  "sop'": "SOP'",
  "sop''": "SOP''",
  'hard-reset': 'Hard Reset',
  'cable-reset': 'Cable Reset',
};

/**
 * Reads a conversation that was noted as hex, one message a line: an optional time in ms, an optional ordered set
 * (SOP, SOP', SOP'', hard-reset, cable-reset), then either words, header first (`61A1 0001912C 0002D12C`), or bytes as
 * they go over the line, lowest byte first, the check sum at their end (`A1 61 2C 91 01 00 …`).
 */
export function readHexList(text: string): Result<CaptureReading> {
  const lines = text.split(/\r?\n/);
  const packets: PdPacket[] = [];
  const problems: Problem[] = [];
  lines.slice(0, MOST_LINES).forEach((line, i) => {
    const clean = line.replace(/#.*$/, '').trim();
    if (clean === '') return;
    const lastS = packets[packets.length - 1]?.atS;
    const packet = readLine(clean, lastS === undefined ? 0 : lastS + APART_S);
    if (typeof packet === 'string') problems.push({ at: `line ${i + 1}`, message: packet });
    else packets.push(packet);
  });
  if (lines.length > MOST_LINES)
    problems.push({ message: `Expected at most ${MOST_LINES} lines; got ${lines.length}.` });
  if (packets.length === 0 && problems.length === 0)
    problems.push({ message: 'Expected one message a line as hex; got nothing.' });
  if (problems.length > 0) return failAll(problems.slice(0, 5));
  const durationS = packets[packets.length - 1].atS;
  return ok({ packets, edges: { CC1: 0, CC2: 0 }, durationS });
}

/** One line as a packet, or what is wrong with it. */
function readLine(line: string, usualS: number): PdPacket | string {
  const tokens = line.replace(/,/g, ' ').split(/\s+/);
  let atS = usualS;
  const time = /^(\d+(?:\.\d+)?)ms$/i.exec(tokens[0]);
  if (time) {
    atS = Number(time[1]) / 1000;
    tokens.shift();
  }
  const word = (tokens[0] ?? '').toLowerCase();
  const set = Object.hasOwn(SETS, word) ? SETS[word] : undefined;
  if (set) tokens.shift();
  if (set?.endsWith('Reset')) return { atS, set, objects: [], intact: true };
  const odd = tokens.find((t) => !/^(0x)?[0-9a-f]+$/i.test(t));
  if (odd !== undefined || tokens.length === 0) return `expected hex; got "${odd ?? line}".`;
  const digits = tokens.map((t) => t.replace(/^0x/i, ''));
  if (digits.every((d) => d.length === 2)) return readPacket(atS, set ?? 'SOP', bytesOf(digits), true);
  const [header, ...words] = digits;
  if (header.length !== 4 || words.some((w) => w.length !== 8))
    return `expected bytes of two digits, or a header of four and objects of eight; got "${line.slice(0, 60)}".`;
  const decoded = decodeHeader(parseInt(header, 16));
  if (decoded.count !== words.length)
    return `expected ${decoded.count} objects after header ${header.toUpperCase()}; got ${words.length}.`;
  const objects = words.map((w) => parseInt(w, 16));
  return { atS, set: set ?? 'SOP', header: decoded, objects, intact: true };
}

const bytesOf = (digits: readonly string[]): Uint8Array => Uint8Array.from(digits, (d) => parseInt(d, 16));
