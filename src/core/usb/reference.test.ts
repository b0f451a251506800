/** The decoder against an independent one: its output is data, with origin and version, in reference-decode.json. */
import {
  captureCsv,
  captureVcd,
  conversation,
  edgesOf,
  encodeHeader,
  OFFERS_65W,
  packetBytes,
  type CcLine,
  type ConversationTrouble,
} from '.';
import { readCapture } from '../import';
import reference from './tests/reference-decode.json';

interface ReferencePacket {
  readonly set: string;
  readonly header?: string;
  readonly objects: readonly string[];
  readonly crc?: string;
}

const hex = (value: number, digits: number): string => (value >>> 0).toString(16).padStart(digits, '0');

test('the reference names its origin and covers four sample rates and both lines', () => {
  expect(reference.origin).toMatch(/0\.7\.2.*0\.5\.3/);
  expect(new Set(reference.captures.map((c) => c.sampleHz)).size).toBe(4);
  expect(new Set(reference.captures.map((c) => c.line)).size).toBe(2);
});

test.each(reference.captures)(
  '$trouble at $sampleHz samples a second on $line: message by message the same',
  (capture) => {
    const trouble = capture.trouble as ConversationTrouble;
    const wish = { trouble, offers: OFFERS_65W, want: 2, wantMa: 3000, cable: trouble === 'none' };
    const edges = edgesOf(conversation(wish), capture);
    for (const write of [captureVcd, captureCsv]) {
      const reading = readCapture(new TextEncoder().encode(write(edges, capture.line as CcLine, capture.sampleHz)));
      if (reading.kind === 'refused' || !reading.value) throw new Error('Expected a capture that is read.');
      expect(reading.value.line).toBe(capture.line);
      const mine = reading.value.packets.filter((p) => p.header);
      const theirs = (capture.packets as ReferencePacket[]).filter((p) => p.header);
      expect(mine.length).toBe(theirs.length);
      mine.forEach((p, i) => {
        expect([p.set, p.intact]).toEqual([theirs[i].set, true]);
        expect(hex(encodeHeader(p.header!), 4)).toBe(theirs[i].header);
        expect(p.objects.map((o) => hex(o, 8))).toEqual(theirs[i].objects);
        const bytes = packetBytes(p.header!, p.objects);
        expect(hex(new DataView(bytes.buffer).getUint32(bytes.length - 4, true), 8)).toBe(theirs[i].crc);
      });
    }
  },
);
