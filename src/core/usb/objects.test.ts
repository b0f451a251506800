import fc from 'fast-check';
import {
  decodeHeader,
  decodePowerObject,
  decodeRequest,
  encodeHeader,
  encodePowerObject,
  encodeRequest,
  fixedSupply,
  messageName,
  powerObjectWords,
  type MessageHeader,
  type PowerObject,
  type PowerRequest,
} from '.';

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

  test('a request for object 4, 3.25 A both', () => {
    const request: PowerRequest = {
      object: 4,
      giveBack: false,
      mismatch: false,
      communications: false,
      noSuspend: false,
      unchunked: false,
      operatingMa: 3250,
      maximumMa: 3250,
    };
    expect(encodeRequest(request)).toBe(0x40051545);
    expect(decodeRequest(0x40051545)).toEqual(request);
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
    maxMv: stepped(255, 100),
    minMv: stepped(255, 100),
    currentMa: stepped(127, 50),
  }),
);

const request: fc.Arbitrary<PowerRequest> = fc.record({
  object: fc.integer({ min: 0, max: 15 }),
  giveBack: fc.boolean(),
  mismatch: fc.boolean(),
  communications: fc.boolean(),
  noSuspend: fc.boolean(),
  unchunked: fc.boolean(),
  operatingMa: stepped(1023, 10),
  maximumMa: stepped(1023, 10),
});

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

  test('requests', () => {
    fc.assert(
      fc.property(request, (r) => expect(decodeRequest(encodeRequest(r))).toEqual(r)),
      { seed: 2, numRuns: 1000 },
    );
  });

  test('headers', () => {
    fc.assert(
      fc.property(header, (h) => expect(decodeHeader(encodeHeader(h))).toEqual(h)),
      { seed: 3, numRuns: 1000 },
    );
  });

  test('any 32 bits of a plain fixed, battery or variable object', () => {
    // Bits 24 and 22 of a fixed object are reserved and not kept.
    const word = fc
      .integer({ min: 0, max: 0xbfffffff })
      .map((w) => (w >>> 30 === 0 ? w & ~((1 << 24) | (1 << 22)) : w) >>> 0);
    fc.assert(
      fc.property(word, (w) => expect(encodePowerObject(decodePowerObject(w))).toBe(w)),
      { seed: 4, numRuns: 1000 },
    );
  });
});

test('objects and messages in words', () => {
  expect(powerObjectWords(fixedSupply(20000, 3250))).toBe('20 V 3.25 A');
  expect(powerObjectWords(decodePowerObject(0xc0dc213c))).toBe('3.3 V to 11 V adjustable, 3 A');
  expect(powerObjectWords(decodePowerObject(0xd0000000))).toBe('object D0000000');
  expect(messageName({ count: 0, type: 1, extended: false })).toBe('GoodCRC');
  expect(messageName({ count: 3, type: 1, extended: false })).toBe('Source_Capabilities');
  expect(messageName({ count: 0, type: 30, extended: false })).toBe('Control 30');
});
