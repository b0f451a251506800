import { demoBoard } from '../../../demo/files';
import { crc32 } from '../image';
import { CaptureReader, readCapture } from '../import';
import {
  captureCsv,
  captureVcd,
  conversation,
  edgesOf,
  OFFERS_65W,
  messageWords,
  readDialogue,
  readPacket,
  TROUBLES,
  type ConversationTrouble,
  type ConversationWish,
} from '.';
import { packetBits, symbolAt, NIBBLE_OF } from './symbols';

const heron = demoBoard('heronlog-4-c');
const wish = (trouble: ConversationTrouble = 'none', more: Partial<ConversationWish> = {}): ConversationWish => ({
  trouble,
  offers: OFFERS_65W,
  want: 3,
  wantMa: 2000,
  ...more,
});
const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

/** What was sent, in words, read from the bytes and never from the line. */
const truth = (w: ConversationWish): string[] =>
  messageWords(
    conversation(w).map((p) =>
      p.bytes.length ? readPacket(p.atS, p.set, p.bytes, true) : { atS: p.atS, set: p.set, objects: [], intact: true },
    ),
  );

function decoded(text: string, sampleHz?: number) {
  const reading = readCapture(bytes(text), sampleHz);
  if (reading.kind === 'refused') throw new Error(reading.problems[0].message);
  if (!reading.value) throw new Error(reading.questions[0].why);
  return reading.value;
}

describe('symbols', () => {
  test('sixteen data symbols, each its own, none of them a control code', () => {
    expect([...NIBBLE_OF].filter((n) => n !== 255).sort((a, b) => a - b)).toEqual(
      Array.from({ length: 16 }, (_, i) => i),
    );
  });

  test('a packet: 64 alternating bits that begin with 0, Sync-1 three times and Sync-2, lowest bit first', () => {
    const bits = packetBits('SOP', Uint8Array.from([0x41]));
    expect(bits.slice(0, 4)).toEqual([0, 1, 0, 1]);
    expect([64, 69, 74, 79].map((at) => symbolAt(bits, at))).toEqual([0b11000, 0b11000, 0b11000, 0b10001]);
    expect(bits.length).toBe(64 + 20 + 10 + 5);
  });

  test('the check sum of a packet is CRC-32/ISO-HDLC (catalogue: "123456789" is CBF43926)', () => {
    expect(crc32(bytes('123456789'))).toBe(0xcbf43926);
  });
});

describe.each([2e6, 4e6, 8e6, 24e6])('captures at %p samples a second', (sampleHz) => {
  test.each(['CC1', 'CC2'] as const)(
    'every message on %s comes back, with jitter, a clock off by 4 %% and glitches; the dead line stays silent',
    (line) => {
      for (const [i, clockError] of [-0.04, 0, 0.04].entries()) {
        const w = wish('none', { cable: true });
        const edges = edgesOf(conversation(w), { seed: 10 + i, clockError, jitterS: 8e-8, glitchesPerS: 150 });
        const reading = decoded(captureCsv(edges, line, sampleHz));
        expect(reading.line).toBe(line);
        expect(messageWords(reading.packets)).toEqual(truth(w));
        expect(reading.edges[line === 'CC1' ? 'CC2' : 'CC1']).toBe(0);
      }
    },
  );

  test('a value change dump of the same line reads the same', () => {
    const w = wish('collapse');
    const edges = edgesOf(conversation(w), { seed: 3 });
    expect(messageWords(decoded(captureVcd(edges, 'CC2', sampleHz)).packets)).toEqual(
      messageWords(decoded(captureCsv(edges, 'CC2', sampleHz)).packets),
    );
    expect(messageWords(decoded(captureVcd(edges, 'CC2', sampleHz)).packets)).toEqual(truth(w));
  });
});

test('plain levels at a known rate read like timed rows', () => {
  const w = wish();
  const edges = edgesOf(conversation(w), { seed: 5 });
  const sampleHz = 4e6;
  const rows: string[] = [];
  let level = 0;
  let next = 0;
  for (let tick = 0; tick < Math.ceil((edges[700] + 1e-4) * sampleHz); tick++) {
    while (next < edges.length && edges[next] <= tick / sampleHz) {
      level ^= 1;
      next++;
    }
    rows.push(`${level},0`);
  }
  const reading = decoded(rows.join('\n'), sampleHz);
  expect(messageWords(reading.packets)[0]).toBe(truth(w)[0]);
});

test('pieces of any size give the same reading', () => {
  const text = bytes(captureCsv(edgesOf(conversation(wish()), { seed: 8 }), 'CC1', 4e6));
  const whole = readCapture(text);
  for (const size of [1, 7, 1000, 65536]) {
    const reader = new CaptureReader('capture');
    for (let at = 0; at < text.length; at += size) reader.push(text.subarray(at, at + size));
    expect(reader.finish()).toEqual(whole);
  }
});

describe('bad captures get a sentence', () => {
  const good = captureCsv(edgesOf(conversation(wish()), { seed: 8 }), 'CC1', 4e6).split('\n');
  test.each<[string, string, RegExp]>([
    ['an empty file', '', /^Expected a capture; got an empty file\.$/],
    ['words', Array(60).fill('hello there').join('\n'), /^Expected rows of time and levels, .*; got "hello there"\.$/],
    [
      'a level that is none',
      [...good.slice(0, 900), '0.5,2,0'].join('\n'),
      /^Row 901: expected 3 columns of time and levels; got "0\.5,2,0"\.$/,
    ],
    ['a row cut short', [...good.slice(0, 900), '0.5,1', '0.6,1,1'].join('\n'), /^Row 901: expected 3 columns/],
    [
      'time that runs back',
      [...good.slice(0, 900), '9,1,0', '0.00001,1,0'].join('\n'),
      /^Row 902: expected times that go on from 9; got 0\.00001\.$/,
    ],
    ['a dump without a scale', '$scope module cc $end\n$enddefinitions $end\n#0\n', /^Expected a \$timescale/],
    [
      'a dump without a wire',
      '$timescale 1 ns $end\n$var real 64 ! $end\n$enddefinitions $end\n#0\nhello\n',
      /^Expected a value change; got "hello"\.$/,
    ],
    ['binary', '\u0000'.repeat(20_000), /^Expected rows of time and levels/],
  ])('%s', (_, text, words) => {
    const reading = readCapture(bytes(text));
    expect(reading.kind === 'refused' ? reading.problems[0].message : '').toMatch(words);
  });

  test('levels without times are asked after their rate', () => {
    const reading = readCapture(bytes(Array.from({ length: 50 }, (_, i) => `${i & 1},0`).join('\n')));
    expect(reading.kind === 'understood' && reading.questions.map((q) => q.id)).toEqual(['rate']);
  });
});

describe('where the conversation stopped, and what that implicates', () => {
  const read = (trouble: ConversationTrouble, line: 'CC1' | 'CC2' = 'CC1') => {
    const edges = edgesOf(conversation(wish(trouble)), { seed: 4 });
    return readDialogue(heron, 'J1', decoded(captureCsv(edges, line, 4e6)));
  };

  test.each<[ConversationTrouble, string, string]>([
    ['none', 'contract', ''],
    ['noRd', 'silent', 'J1'],
    ['noAnswer', 'offersUnanswered', 'U4'],
    ['badImage', 'offersNotAsked', 'U9'],
    ['refused', 'refused', 'U9'],
    ['collapse', 'collapsed', 'Q1'],
    ['noisy', 'noisy', 'J1'],
  ])('%s: %s, first of all %s', (trouble, stop, ref) => {
    const { stop: got, implicated } = read(trouble);
    expect(got).toBe(stop);
    expect(implicated[0]?.ref ?? '').toBe(ref);
  });

  test('every trouble has its own stop', () => {
    expect(new Set(TROUBLES.map((t) => read(t).stop)).size).toBe(TROUBLES.length);
  });

  test('the talking line names the ESD array of that side only', () => {
    expect(read('noAnswer', 'CC1').implicated.map((i) => i.ref)).toContain('D1');
    expect(read('noAnswer', 'CC2').implicated.map((i) => i.ref)).toContain('D2');
    expect(read('noAnswer', 'CC2').implicated.map((i) => i.ref)).not.toContain('D1');
  });

  test('the contract is the offer asked for, and the dialogue reads like one', () => {
    const { contract, lines } = read('none');
    expect(contract).toEqual({ volts: 15, amps: 2 });
    expect(lines.map((l) => `${l.who}: ${l.words}`)).toEqual([
      'charger: Source_Capabilities: 5 V 3 A, 9 V 3 A, 15 V 3 A, 20 V 3.25 A',
      'device: Request: offer 3, 2 A of at most 2 A',
      'charger: Accept',
      'charger: PS_RDY',
    ]);
  });

  test('messages to the cable do not count as the device’s', () => {
    const edges = edgesOf(conversation(wish('noAnswer', { cable: true })), { seed: 4 });
    const dialogue = readDialogue(heron, 'J1', decoded(captureCsv(edges, 'CC1', 4e6)));
    expect(dialogue.stop).toBe('offersUnanswered');
    expect(dialogue.lines.some((l) => l.who === 'cable' || l.words.startsWith('Vendor_Defined'))).toBe(true);
  });
});
