import { fail, ok, type Result } from '../result';
import { bigEndian, ByteStore, hexBytes, hexText, inLine, numberOf, sumOfBytes } from './hex-line';
import { isLower, isRemark, linesOf } from './lines';
import { joined, type Chunk, type LoadedImage, type RecordLine, type Remark } from './memory';

/** Bytes of the address field of each type; S4 is reserved. Source: SREC(5) manual page, from memory. */
const ADDRESS_BYTES = [2, 2, 3, 4, undefined, 2, 3, 4, 3, 2] as const;
const isData = (type: number): boolean => type >= 1 && type <= 3;
const isCount = (type: number): boolean => type === 5 || type === 6;
const isEnd = (type: number): boolean => type >= 7;

/** Reads Motorola S-records S0 to S9. A problem names the line, the field, what was expected and what was got. */
export function readSRecords(text: string): Result<LoadedImage> {
  const { lines, newline, endsWithNewline } = linesOf(text);
  const store = new ByteStore(text.length >> 1);
  const records: RecordLine[] = [];
  const pieces: Chunk[] = [];
  const remarks: Remark[] = [];
  let startAddress: number | undefined;
  let widest = 0;
  for (const { number, text: line } of lines) {
    if (isRemark(line)) {
      remarks.push({ before: records.length, text: line });
      continue;
    }
    if (startAddress !== undefined) return inLine([{ message: 'Expected nothing after the end record.' }], number);
    const parsed = parseLine(line, store);
    if (!parsed.ok) return inLine(parsed.problems, number);
    const record = parsed.value;
    if (isData(record.type)) {
      pieces.push({ address: record.address, bytes: record.data });
      widest = Math.max(widest, record.type);
    }
    if (isCount(record.type) && record.address !== pieces.length)
      return inLine(
        [{ message: `Expected ${pieces.length}, the data records before it; got ${record.address}.`, at: 'count' }],
        number,
      );
    if (isEnd(record.type)) {
      // The checksum does not cover the type: a digit read wrong would move a record's data unseen.
      if (widest > 10 - record.type)
        return inLine(
          [{ message: `Expected S${10 - widest} after data records S${widest}; got S${record.type}.`, at: 'type' }],
          number,
        );
      startAddress = record.address;
    }
    records.push(record);
  }
  if (records.length === 0) return fail('Expected S-records; got none.');
  const notes = remarks.some((r) => r.text !== '') ? ['Comments are kept and count for nothing.'] : [];
  if (startAddress === undefined) {
    const counted = records.some((r) => isCount(r.type));
    notes.push(
      `The end record (S7, S8 or S9) is missing: the file stops after line ${lines.length}${counted ? ', its count of records holds' : ', and may have been cut'}.`,
    );
  }
  const { chunks, twiceAt } = joined(pieces);
  if (twiceAt !== undefined)
    return fail(`Expected each byte once; address ${hexText(bigEndian(twiceAt, 4))} is given twice.`);
  return ok({ format: 's-record', chunks, lines: records, remarks, notes, newline, endsWithNewline, startAddress });
}

function parseLine(line: string, store: ByteStore): Result<RecordLine> {
  if (line[0] !== 'S')
    return fail(`Expected an S as the first character; got ${line === '' ? 'an empty line' : `“${line[0]}”`}.`);
  const type = Number(line[1]);
  const width = ADDRESS_BYTES[type];
  if (!/^[0-9]$/.test(line[1] ?? '') || width === undefined)
    return fail(`Expected a type from 0 to 9 but 4; got “${line[1] ?? ''}”.`, 'type');
  const bytes = hexBytes(line, 2, store);
  if (!bytes.ok) return bytes;
  const all = bytes.value;
  if (all.length < width + 2)
    return fail(`Expected count, ${width} bytes of address and a checksum; got ${all.length} bytes.`);
  if (all[0] !== all.length - 1)
    return fail(`Expected ${all[0]} bytes after it as the count says; got ${all.length - 1}.`, 'count');
  const data = all.subarray(1 + width, all.length - 1);
  if (type >= 5 && data.length > 0)
    return fail(`Expected no data in a record S${type}; got ${data.length} bytes.`, 'data');
  const sum = 255 - (sumOfBytes(all, all.length - 1) % 256);
  if (all[all.length - 1] !== sum)
    return fail(`Expected ${hexText([sum])}; got ${hexText([all[all.length - 1]])}.`, 'checksum');
  return ok({ type, address: numberOf(all, 1, width), data, lower: isLower(line.slice(1)) });
}

export function sRecordLine({ type, address, data, lower }: RecordLine): string {
  const width = ADDRESS_BYTES[type]!;
  const bytes = [width + data.length + 1, ...bigEndian(address, width), ...data];
  const text = hexText([...bytes, 255 - (sumOfBytes(bytes) % 256)]);
  return `S${type}${lower ? text.toLowerCase() : text}`;
}

/** Records for bytes at addresses, with the shortest address field that reaches them all. */
export function sRecords(chunks: readonly Chunk[], lineBytes: number, startAddress = 0): RecordLine[] {
  const top = chunks.reduce((most, c) => Math.max(most, c.address + c.bytes.length - 1), startAddress);
  const type = top < 65536 ? 1 : top < 2 ** 24 ? 2 : 3;
  const records: RecordLine[] = [{ type: 0, address: 0, data: new Uint8Array(), lower: false }];
  for (const { address, bytes } of chunks) {
    for (let at = 0; at < bytes.length; at += lineBytes)
      records.push({ type, address: address + at, data: bytes.subarray(at, at + lineBytes), lower: false });
  }
  const count = records.length - 1;
  const none = new Uint8Array();
  if (count < 2 ** 24) records.push({ type: count < 65536 ? 5 : 6, address: count, data: none, lower: false });
  records.push({ type: 10 - type, address: startAddress, data: none, lower: false });
  return records;
}
