import { demoBoard } from '../../../demo/files';
import { readDialogue } from './dialogue';
import { readHexList } from './hex';
import { encodeHeader } from './objects';
import { packetBytes } from './packet';
import { messageWords } from './read-messages';
import { conversation, OFFERS_65W, TROUBLES } from './simulate';

const board = demoBoard('heronlog-4-c');
const hex = (bytes: Uint8Array): string => Array.from(bytes, (b) => b.toString(16).padStart(2, '0')).join(' ');

/** A simulated conversation as a person would note it: times, sets, bytes. */
const noted = (trouble: (typeof TROUBLES)[number]): string =>
  conversation({ trouble, offers: OFFERS_65W, want: 3, wantMa: 2000, cable: true })
    .map(
      (p) =>
        `${(p.atS * 1000).toFixed(3)}ms ${p.set.replace(' ', '-')} ${p.corrupt ? `${hex(p.bytes).slice(0, -2)}00` : hex(p.bytes)}`,
    )
    .join('\n');

test.each(TROUBLES.filter((t) => t !== 'noRd'))(
  'a conversation with %s, noted as bytes, reads as the capture would',
  (trouble) => {
    const sent = conversation({ trouble, offers: OFFERS_65W, want: 3, wantMa: 2000, cable: true });
    const reading = readHexList(noted(trouble));
    if (!reading.ok) throw new Error(reading.problems[0].message);
    expect(reading.value.packets.map((p) => p.set)).toEqual(sent.map((p) => p.set));
    expect(reading.value.packets.map((p) => p.intact)).toEqual(sent.map((p) => !p.corrupt));
    const stops = {
      none: 'contract',
      noAnswer: 'offersUnanswered',
      refused: 'refused',
      collapse: 'collapsed',
      noisy: 'noisy',
      badImage: 'offersNotAsked',
    };
    expect(readDialogue(board, 'J1', reading.value).stop).toBe(stops[trouble as keyof typeof stops]);
  },
);

test('words: a header of four digits and objects of eight, as the check values are written', () => {
  // Check values: fixed 5 V 3 A 0001912C, 9 V 3 A 0002D12C, 15 V 3 A 0004B12C, 20 V 3.25 A 00064145 (PD specification fields).
  const header = encodeHeader({ extended: false, count: 4, id: 0, source: true, revision: 3, host: true, type: 1 });
  const reading = readHexList(`0.5ms ${header.toString(16)} 0001912C 0002D12C 0004B12C 00064145  # offers`);
  if (!reading.ok) throw new Error(reading.problems[0].message);
  expect(messageWords(reading.value.packets)[0]).toBe('Source_Capabilities: 5 V 3 A, 9 V 3 A, 15 V 3 A, 20 V 3.25 A');
  expect(reading.value.packets[0].atS).toBeCloseTo(0.0005, 9);
});

test('without times the messages stand one after the other', () => {
  const accept = hex(
    packetBytes({ extended: false, count: 0, id: 1, source: true, revision: 3, host: true, type: 3 }, []),
  );
  const reading = readHexList(`${accept}\n${accept}\n`);
  expect(reading.ok && reading.value.packets.map((p) => p.atS)).toEqual([0, 0.001]);
});

test.each([
  ['', 'Expected one message a line as hex; got nothing.'],
  ['hello', 'expected hex; got "hello".'],
  ['61a1 0001912C', 'expected 6 objects after header 61A1; got 1.'],
  ['61 a1 00 1', 'expected bytes of two digits, or a header of four and objects of eight; got "61 a1 00 1".'],
])('%j gets a sentence', (text, words) => {
  const reading = readHexList(text);
  expect(!reading.ok && reading.problems[0].message).toBe(words);
});

test('the line at fault is named', () => {
  const reading = readHexList('hard-reset\n\n12 zz');
  expect(!reading.ok && reading.problems).toEqual([{ at: 'line 3', message: 'expected hex; got "zz".' }]);
});
