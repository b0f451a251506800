import { fail, ok, type Result } from '../result';
import { bigEndian, ByteStore, hexBytes, hexText, inLine, numberOf, sumOfBytes } from './hex-line';
import { isLower, isRemark, linesOf } from './lines';
import { joined, type Chunk, type LoadedImage, type RecordLine, type Remark } from './memory';

/** Record types. Source: Hexadecimal Object File Format Specification, revision A, 1988. */
const DATA = 0;
const END = 1;
const SEGMENT = 2;
const START_SEGMENT = 3;
const LINEAR = 4;
const START_LINEAR = 5;

/** Bytes of data that each type but data has. */
const LENGTHS: Readonly<Record<number, number>> = {
  [END]: 0,
  [SEGMENT]: 2,
  [START_SEGMENT]: 4,
  [LINEAR]: 2,
  [START_LINEAR]: 4,
};

/** Reads Intel HEX, all record types, comments between them and a missing end record, which is noted. A problem names the line, the field, what was expected and what was got. */
export function readIntelHex(text: string): Result<LoadedImage> {
  const { lines, newline, endsWithNewline } = linesOf(text);
  const store = new ByteStore(text.length >> 1);
  const records: RecordLine[] = [];
  const pieces: Chunk[] = [];
  const remarks: Remark[] = [];
  let [base, segmented] = [0, false];
  let startAddress: number | undefined;
  for (const { number, text: line } of lines) {
    if (isRemark(line)) {
      remarks.push({ before: records.length, text: line });
      continue;
    }
    if (records.length > 0 && records[records.length - 1].type === END)
      return inLine([{ message: 'Expected nothing after the end record.' }], number);
    const parsed = parseLine(line, store);
    if (!parsed.ok) return inLine(parsed.problems, number);
    const record = parsed.value;
    records.push(record);
    if (record.type === DATA) pieces.push(...placed(record, base, segmented));
    if (record.type === SEGMENT || record.type === LINEAR) {
      segmented = record.type === SEGMENT;
      base = numberOf(record.data, 0, 2) * (segmented ? 16 : 65536);
    }
    if (record.type === START_SEGMENT) startAddress = 16 * numberOf(record.data, 0, 2) + numberOf(record.data, 2, 2);
    if (record.type === START_LINEAR) startAddress = numberOf(record.data, 0, 4);
  }
  if (records.length === 0) return fail('Expected Intel HEX records; got none.');
  const notes = remarks.some((r) => r.text !== '') ? ['Comments are kept and count for nothing.'] : [];
  if (records[records.length - 1].type !== END)
    notes.push(
      `The end record (:00000001FF) is missing: the file stops after line ${lines.length}, and may have been cut.`,
    );
  const { chunks, twiceAt } = joined(pieces);
  if (twiceAt !== undefined)
    return fail(`Expected each byte once; address ${hexText(bigEndian(twiceAt, 4))} is given twice.`);
  return ok({ format: 'intel-hex', chunks, lines: records, remarks, notes, newline, endsWithNewline, startAddress });
}

function parseLine(line: string, store: ByteStore): Result<RecordLine> {
  if (line[0] !== ':')
    return fail(`Expected a colon as the first character; got ${line === '' ? 'an empty line' : `“${line[0]}”`}.`);
  const bytes = hexBytes(line, 1, store);
  if (!bytes.ok) return bytes;
  const all = bytes.value;
  if (all.length < 5) return fail(`Expected at least length, address, type and checksum, 5 bytes; got ${all.length}.`);
  const data = all.subarray(4, all.length - 1);
  if (all[0] !== data.length)
    return fail(`Expected ${all[0]} bytes of data as the length field says; got ${data.length}.`, 'length');
  const type = all[3];
  if (type > START_LINEAR) return fail(`Expected a record type from 00 to 05; got ${hexText([type])}.`, 'type');
  const length = LENGTHS[type];
  if (length !== undefined && data.length !== length)
    return fail(
      `Expected ${length} bytes of data in a record of type ${hexText([type])}; got ${data.length}.`,
      'length',
    );
  const sum = (256 - (sumOfBytes(all, all.length - 1) % 256)) % 256;
  if (all[all.length - 1] !== sum)
    return fail(`Expected ${hexText([sum])}; got ${hexText([all[all.length - 1]])}.`, 'checksum');
  return ok({ type, address: numberOf(all, 1, 2), data, lower: isLower(line) });
}

/** Within a segment an address runs round at 64 KiB; a linear one goes on. */
function placed({ address, data }: RecordLine, base: number, segmented: boolean): Chunk[] {
  if (!segmented || address + data.length <= 65536) return [{ address: base + address, bytes: data }];
  const first = 65536 - address;
  return [
    { address: base + address, bytes: data.subarray(0, first) },
    { address: base, bytes: data.subarray(first) },
  ];
}

export function intelHexLine({ type, address, data, lower }: RecordLine): string {
  const bytes = [data.length, ...bigEndian(address, 2), type, ...data];
  const text = hexText([...bytes, (256 - (sumOfBytes(bytes) % 256)) % 256]);
  return `:${lower ? text.toLowerCase() : text}`;
}

/** Records for bytes at addresses: extended linear addresses where the upper half changes, then the end. */
export function intelHexRecords(chunks: readonly Chunk[], lineBytes: number, startAddress?: number): RecordLine[] {
  const records: RecordLine[] = [];
  const record = (type: number, address: number, data: Uint8Array): void =>
    void records.push({ type, address, data, lower: false });
  let upper = 0;
  for (const { address, bytes } of chunks) {
    for (let at = 0; at < bytes.length;) {
      const from = address + at;
      // A record does not go on past the 64 KiB that its extended address opens.
      const count = Math.min(lineBytes, bytes.length - at, 65536 - (from % 65536));
      if (Math.floor(from / 65536) !== upper) {
        upper = Math.floor(from / 65536);
        record(LINEAR, 0, Uint8Array.from(bigEndian(upper, 2)));
      }
      record(DATA, from % 65536, bytes.subarray(at, at + count));
      at += count;
    }
  }
  if (startAddress !== undefined) record(START_LINEAR, 0, Uint8Array.from(bigEndian(startAddress, 4)));
  record(END, 0, new Uint8Array());
  return records;
}
