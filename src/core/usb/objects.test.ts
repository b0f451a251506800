import fc from 'fast-check';
import {
  decodeHeader,
  decodePowerObject,
  encodeHeader,
  encodePowerObject,
  fixedSupply,
  powerObjectWords,
  type MessageHeader,
  type PowerObject,
} from './objects';

describe('check values (USB Power Delivery specification, worked by hand)', () => {
  test.each([
    [5000, 3000, 0x0001912c],
    [9000, 3000, 0x0002d12c],
    [15000, 3000, 0x0004b12c],
    [20000, 3250, 0x00064145],
    [20000, 5000, 0x000641f4],
  ])('fixed %p mV %p mA', (mv, ma, word) => {
    expect(encodePowerObject(fixedSupply(mv, ma))).toBe(word);
    expect(decodePowerObject(word)).toEqual(fixedSupply(mv, ma));
  });

  test('a header: four source capabilities, revision 3, id 2, from the source as host', () => {
    const header: MessageHeader = { extended: false, count: 4, id: 2, source: true, revision: 3, host: true, type: 1 };
    // 0 100 010 1 10 1 00001
    expect(encodeHeader(header)).toBe(0b0100010110100001);
  });
});

const stepped = (most: number, step: number): fc.Arbitrary<number> =>
  fc.integer({ min: 0, max: most }).map((n) => n * step);

const powerObject: fc.Arbitrary<PowerObject> = fc.oneof(
  fc.record({
    kind: fc.constant('fixed' as const),
    dualRolePower: fc.boolean(),
    suspend: fc.boolean(),
    unconstrained: fc.boolean(),
    communications: fc.boolean(),
    dualRoleData: fc.boolean(),
    unchunked: fc.boolean(),
    extendedRange: fc.boolean(),
    peak: fc.integer({ min: 0, max: 3 }),
    voltageMv: stepped(1023, 50),
    currentMa: stepped(1023, 10),
  }),
  fc.record({
    kind: fc.constant('battery' as const),
    maxMv: stepped(1023, 50),
    minMv: stepped(1023, 50),
    powerMw: stepped(1023, 250),
  }),
  fc.record({
    kind: fc.constant('variable' as const),
    maxMv: stepped(1023, 50),
    minMv: stepped(1023, 50),
    currentMa: stepped(1023, 10),
  }),
  fc.record({
    kind: fc.constant('programmable' as const),
    powerLimited: fc.boolean(),
    maxMv: stepped(255, 100),
    minMv: stepped(255, 100),
    currentMa: stepped(127, 50),
  }),
  fc.record({
    kind: fc.constant('adjustable' as const),
    peak: fc.integer({ min: 0, max: 3 }),
    currentTo15Ma: stepped(1023, 10),
    currentTo20Ma: stepped(1023, 10),
  }),
  fc.record({
    kind: fc.constant('extendedAdjustable' as const),
    peak: fc.integer({ min: 0, max: 3 }),
    maxMv: stepped(511, 100),
    minMv: stepped(255, 100),
    powerW: fc.integer({ min: 0, max: 255 }),
  }),
);

const header: fc.Arbitrary<MessageHeader> = fc.record({
  extended: fc.boolean(),
  count: fc.integer({ min: 0, max: 7 }),
  id: fc.integer({ min: 0, max: 7 }),
  source: fc.boolean(),
  revision: fc.integer({ min: 1, max: 4 }),
  host: fc.boolean(),
  type: fc.integer({ min: 0, max: 31 }),
});

describe('every field comes back as it went in', () => {
  test('power objects', () => {
    fc.assert(
      fc.property(powerObject, (object) => expect(decodePowerObject(encodePowerObject(object))).toEqual(object)),
      { seed: 1, numRuns: 1000 },
    );
  });

  test('headers', () => {
    fc.assert(
      fc.property(header, (h) => expect(decodeHeader(encodeHeader(h))).toEqual(h)),
      { seed: 3, numRuns: 1000 },
    );
  });

  test('any 32 bits of a plain fixed, battery or variable object', () => {
    // Bit 22 of a fixed object is reserved and not kept.
    const word = fc.integer({ min: 0, max: 0xbfffffff }).map((w) => (w >>> 30 === 0 ? w & ~(1 << 22) : w) >>> 0);
    fc.assert(
      fc.property(word, (w) => expect(encodePowerObject(decodePowerObject(w))).toBe(w)),
      { seed: 4, numRuns: 1000 },
    );
  });
});

test('objects and messages in words', () => {
  expect(powerObjectWords(fixedSupply(20000, 3250))).toBe('20 V 3.25 A');
  expect(powerObjectWords(decodePowerObject(0xc0dc213c))).toBe('3.3 V to 11 V adjustable, 3 A');
  expect(powerObjectWords(decodePowerObject(0xf0000000))).toBe('object F0000000');
  // Extended range, 15 to 28 V, 140 W: 01 in bits 29:28, 280 at 25:17, 150 at 15:8, 140 below.
  expect(powerObjectWords(decodePowerObject(0xd230968c))).toBe('15 V to 28 V adjustable, 140 W');
  // Standard range: 10 in bits 29:28, 3 A at 19:10, 2.25 A at 9:0.
  expect(powerObjectWords(decodePowerObject(0xe004b0e1))).toBe('9 V to 20 V adjustable, 3 A to 15 V, 2.25 A above');
});
