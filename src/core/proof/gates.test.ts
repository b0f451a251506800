/** What a job needs to close as repaired, fact by fact: what holds, and the words for what is missing. */
import { judgeGates, type RailProof } from '.';

type GateFacts = Parameters<typeof judgeGates>[0];

const railsAre = (...states: readonly (readonly [string, 'untested' | 'passes' | 'fails'])[]): RailProof =>
  ({ rails: states.map(([id, state]) => ({ rail: { id }, state })) }) as unknown as RailProof;

const GOOD: GateFacts = {
  rails: railsAre(['VBUS', 'passes'], ['V33', 'passes']),
  plugs: [
    { port: 'J1', side: 'A', healthy: true },
    { port: 'J1', side: 'B', healthy: true },
  ],
  shorts: [{ net: 'V33', gone: true }],
  functions: [{ id: 'charge', works: true }],
};
const missing = (facts: Partial<GateFacts>): (string | undefined)[] =>
  judgeGates({ ...GOOD, ...facts }).flatMap((g) => (g.holds ? [] : [`${g.label}: ${g.missing}`]));

test('where nothing is missing every gate holds, in the order of the work, and says nothing', () => {
  const gates = judgeGates(GOOD);
  expect(gates.map((g) => g.id)).toEqual(['shorts', 'rails', 'plugs', 'functions']);
  expect(gates.every((g) => g.holds && g.missing === undefined)).toBe(true);
});

test('seat, image and soak are asked for only where they were touched', () => {
  const gates = judgeGates({ ...GOOD, seat: [], imageSound: true, soak: '' });
  expect(gates.map((g) => g.id)).toEqual(['shorts', 'seat', 'rails', 'plugs', 'functions', 'image', 'soak']);
  expect(gates.every((g) => g.holds)).toBe(true);
});

test.each<[string, Partial<GateFacts>, string]>([
  ['a short that is there', { shorts: [{ net: 'V33', gone: false }] }, 'Shorts gone: V33 still shorted'],
  ['a short not looked at', { shorts: [{ net: 'V33', gone: undefined }] }, 'Shorts gone: V33 not measured again'],
  [
    'two shorts, one of them gone',
    { shorts: [...GOOD.shorts, { net: 'VIN', gone: false }, { net: 'VSYS', gone: undefined }] },
    'Shorts gone: VIN still shorted, VSYS not measured again',
  ],
  [
    'rails',
    { rails: railsAre(['VBUS', 'passes'], ['V33', 'fails'], ['V18', 'untested']) },
    'All rails in their windows: V33 fails, V18 not yet',
  ],
  [
    'plugs',
    {
      plugs: [
        { port: 'J1', side: 'A', healthy: false },
        { port: 'J1', side: 'B', healthy: undefined },
        { port: 'J2', side: 'A', healthy: true },
      ],
    },
    'Both plug orientations charge: J1 A not healthy, J1 B not yet',
  ],
  [
    'functions',
    {
      functions: [
        { id: 'charge', works: false },
        { id: 'data', works: undefined },
        { id: 'dock', works: true },
      ],
    },
    'Functions tried: charge fails, data not yet',
  ],
  ['a seat', { seat: ['joints of U4', 'U8 flat'] }, 'Placed parts sit and join: joints of U4, U8 flat'],
  ['an image', { imageSound: false }, 'Image checks hold: the image written last is not sound'],
  ['a soak', { soak: '1 restart' }, 'Soak held: 1 restart'],
])('%s: what is missing is named, and nothing else', (_, facts, words) => {
  expect(missing(facts)).toEqual([words]);
});
