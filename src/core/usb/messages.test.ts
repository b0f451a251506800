import fc from 'fast-check';
import { chunksOf, joinChunks, readExtended, writeExtended } from './extended';
import { readFields, writeFields, type FieldLayout, type FieldValue, type Fields, type Layout } from './layout';
import { CONTROL_MESSAGES, DATA_MESSAGES, EXTENDED_MESSAGES, messageName } from './messages';
import { encodePowerObject, fixedSupply, type MessageHeader, type PowerObject } from './objects';
import { packetBytes, readPacket, type PdPacket } from './packet';
import { messageWords, readMessages } from './read-messages';
import { decodeRequest, encodeRequest, type PowerRequest } from './requests';

const ALL = [...CONTROL_MESSAGES, ...DATA_MESSAGES, ...EXTENDED_MESSAGES];

describe('the tables of messages (USB Power Delivery specification, revision 3.1, chapter 6, from memory)', () => {
  test.each([
    [{ extended: false, count: 0, type: 23 }, 'Get_Source_Info'],
    [{ extended: false, count: 0, type: 24 }, 'Get_Revision'],
    [{ extended: false, count: 1, type: 6 }, 'Alert'],
    [{ extended: false, count: 2, type: 9 }, 'EPR_Request'],
    [{ extended: true, count: 2, type: 2 }, 'Status'],
    [{ extended: true, count: 7, type: 17 }, 'EPR_Source_Capabilities'],
    [{ extended: true, count: 1, type: 30 }, 'Vendor_Defined_Extended'],
    [{ extended: false, count: 0, type: 30 }, 'Control 30'],
    [{ extended: true, count: 1, type: 25 }, 'Extended 25'],
  ])('%p is %s', (header, name) => {
    expect(messageName(header)).toBe(name);
  });

  test('name every number once, and no field lies on another or outside its block', () => {
    for (const table of [CONTROL_MESSAGES, DATA_MESSAGES, EXTENDED_MESSAGES]) {
      expect(new Set(table.map((m) => m.type)).size).toBe(table.length);
      expect(new Set(table.map((m) => m.name)).size).toBe(table.length);
    }
    for (const { name, layout } of ALL) {
      if (!layout) continue;
      const taken = new Set<number>();
      for (const f of layout.fields)
        for (let k = f.at; k < f.at + (f.kind === 'flag' ? 1 : f.bits); k++) {
          expect(`${name} ${f.name} ${taken.has(k) || k >= 8 * layout.bytes}`).toBe(`${name} ${f.name} false`);
          taken.add(k);
        }
    }
  });
});

/** Any value that a field can hold. */
function valueOf(f: FieldLayout): fc.Arbitrary<FieldValue> {
  if (f.kind === 'flag') return fc.boolean();
  const raw = fc.integer({ min: 0, max: 2 ** f.bits - 1 });
  if (f.kind === 'choice') return raw.map((n) => f.choices[n] || `reserved ${n}`);
  return raw.map((n) => (n === f.unknown ? null : n * (f.step ?? 1)));
}
const fieldsOf = (layout: Layout): fc.Arbitrary<Fields> =>
  fc.record(Object.fromEntries(layout.fields.map((f) => [f.name, valueOf(f)])));

describe('every field of every message comes back as it went in', () => {
  test.each(ALL.filter((m) => m.layout).map((m) => [m.name, m.layout!] as const))('%s', (_name, layout) => {
    fc.assert(
      fc.property(fieldsOf(layout), (fields) =>
        expect(readFields(layout, writeFields(layout, fields))).toEqual(fields),
      ),
      { seed: 12, numRuns: 120 },
    );
  });

  test('extended messages over their chunks, whatever their length', () => {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 1, maxLength: 260 }), (block) => {
        const parts = chunksOf(block).map((part) => {
          const words = writeExtended(part);
          const bytes = new Uint8Array(4 * words.length);
          words.forEach((w, i) => new DataView(bytes.buffer).setUint32(4 * i, w, true));
          return readExtended(bytes)!;
        });
        expect(joinChunks(parts)).toEqual(block);
        if (parts.length > 1) expect(joinChunks(parts.slice(1))).toBeUndefined();
      }),
      { seed: 13, numRuns: 200 },
    );
  });
});

const supply: Readonly<Record<PowerRequest['kind'], PowerObject | undefined>> = {
  current: fixedSupply(20_000, 5000),
  power: { kind: 'battery', maxMv: 21_000, minMv: 5000, powerMw: 100_000 },
  voltage: { kind: 'programmable', powerLimited: false, maxMv: 11_000, minMv: 3300, currentMa: 3000 },
  unread: undefined,
};
const flags = {
  object: fc.integer({ min: 1, max: 13 }),
  mismatch: fc.boolean(),
  communications: fc.boolean(),
  noSuspend: fc.boolean(),
  unchunked: fc.boolean(),
  extendedRange: fc.boolean(),
};
const steps = (most: number, step: number) => fc.integer({ min: 0, max: most }).map((n) => n * step);

describe('requests', () => {
  test('the check value: object 4, 3.25 A both, against a fixed offer', () => {
    const request = decodeRequest(0x40051545, supply.current);
    expect(request).toMatchObject({ kind: 'current', object: 4, operatingMa: 3250, maximumMa: 3250 });
    expect(encodeRequest(request)).toBe(0x40051545);
  });

  test('8.42 V 3 A of a programmable supply, worked by hand: 421 steps of 20 mV, 60 of 50 mA', () => {
    const word = 0x6 * 2 ** 28 + 421 * 2 ** 9 + 60;
    expect(decodeRequest(word, supply.voltage)).toMatchObject({ kind: 'voltage', outputMv: 8420, operatingMa: 3000 });
    // Where the offer is not known no figure is told: the same bits would read 2.1 A of at most 5.72 A.
    expect(decodeRequest(word, undefined)).toMatchObject({ kind: 'unread', object: 6 });
  });

  test('come back as they went in, each against the offer it answers', () => {
    const request: fc.Arbitrary<PowerRequest> = fc.oneof(
      fc.record({
        ...flags,
        kind: fc.constant('current' as const),
        giveBack: fc.boolean(),
        operatingMa: steps(1023, 10),
        maximumMa: steps(1023, 10),
      }),
      fc.record({
        ...flags,
        kind: fc.constant('power' as const),
        giveBack: fc.boolean(),
        operatingMw: steps(1023, 250),
        maximumMw: steps(1023, 250),
      }),
      fc.record({
        ...flags,
        kind: fc.constant('voltage' as const),
        stepMv: fc.constant(20 as const),
        outputMv: steps(4095, 20),
        operatingMa: steps(127, 50),
      }),
    );
    fc.assert(
      fc.property(request, (r) => expect(decodeRequest(encodeRequest(r), supply[r.kind])).toEqual(r)),
      { seed: 2, numRuns: 600 },
    );
  });
});

describe('a conversation read in its order', () => {
  const head = (type: number, source: boolean, id: number, extended = false): MessageHeader => ({
    ...{ extended, count: 0, id, source, revision: 3, host: source, type },
  });
  const sent = (header: MessageHeader, objects: readonly number[]): PdPacket =>
    readPacket(0, 'SOP', packetBytes(header, objects), true);
  const pps: PowerObject = { kind: 'programmable', powerLimited: false, maxMv: 11_000, minMv: 3300, currentMa: 3000 };
  const request = 0x20000000 + 421 * 2 ** 9 + 60;

  test('a request for a programmable supply is read as one, against the offers before it', () => {
    const offers = sent(head(1, true, 0), [encodePowerObject(fixedSupply(5000, 3000)), encodePowerObject(pps)]);
    expect(messageWords([offers, sent(head(2, false, 0), [request])])[1]).toBe('Request: offer 2, 8.42 V 3 A');
    expect(messageWords([sent(head(2, false, 0), [request])])[0]).toBe(
      'Request: offer 2, which is not in this record: its figures are not read',
    );
  });

  test('the extended range: offers over two chunks, a request with its copy', () => {
    const avs: PowerObject = { kind: 'extendedAdjustable', peak: 0, maxMv: 28_000, minMv: 15_000, powerW: 140 };
    const offers = [
      fixedSupply(5000, 3000),
      fixedSupply(9000, 3000),
      fixedSupply(15_000, 3000),
      fixedSupply(20_000, 5000),
    ].map(encodePowerObject);
    const words = [...offers, 0, 0, 0, encodePowerObject(fixedSupply(28_000, 5000)), encodePowerObject(avs)];
    const block = new Uint8Array(4 * words.length);
    words.forEach((w, i) => new DataView(block.buffer).setUint32(4 * i, w, true));
    const chunks = chunksOf(block).map((part, i) => sent(head(17, true, i, true), writeExtended(part)));
    const asked = { ...fixedSupply(28_000, 5000) };
    const epr = encodeRequest({
      kind: 'current',
      object: 8,
      giveBack: false,
      mismatch: false,
      communications: false,
      noSuspend: false,
      unchunked: false,
      extendedRange: true,
      operatingMa: 5000,
      maximumMa: 5000,
    });
    const said = messageWords([...chunks, sent(head(9, false, 0), [epr, encodePowerObject(asked)])]);
    expect(said).toEqual([
      'EPR_Source_Capabilities: chunk 0 of 36 bytes',
      'EPR_Source_Capabilities: 5 V 3 A, 9 V 3 A, 15 V 3 A, 20 V 5 A, 28 V 5 A, 15 V to 28 V adjustable, 140 W',
      'EPR_Request: offer 8, 5 A of at most 5 A',
    ]);
  });

  test('alerts and status are told by what they say', () => {
    const alert = DATA_MESSAGES.find((m) => m.name === 'Alert')!.layout!;
    const word = new DataView(writeFields(alert, { overTemperature: true, fixedBatteries: 1 }).buffer).getUint32(
      0,
      true,
    );
    const status = EXTENDED_MESSAGES.find((m) => m.name === 'Status')!.layout!;
    const block = writeFields(status, { internalC: 61, temperature: 'warning', limitedByCable: true });
    const [first, second] = readMessages([
      sent(head(6, true, 0), [word]),
      sent(head(2, true, 1, true), writeExtended(chunksOf(block)[0])),
    ]);
    expect(first.words).toBe('Alert: fixedBatteries 1, overTemperature');
    expect(second.fields[0]).toMatchObject({ internalC: 61, temperature: 'warning', limitedByCable: true });
    expect(second.section).toBe('6.5.2');
  });

  test('a chunk that is missing is never passed over in silence', () => {
    const parts = chunksOf(new Uint8Array(60)).map((part, i) => sent(head(30, true, i, true), writeExtended(part)));
    expect(messageWords([parts[0], parts[2]])[1]).toBe('Vendor_Defined_Extended: chunk 2 of 60 bytes');
  });
});
