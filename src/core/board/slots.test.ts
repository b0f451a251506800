import { demoBoard } from '../../../demo/files';
import { problemText } from '../result';
import { parseBoard, type Slot } from '.';

const board = demoBoard('heronlog-4-c');
const [slot] = board.slots;
const refused = (slots: readonly Slot[]): string => {
  const parsed = parseBoard({ ...board, slots });
  return parsed.ok ? '' : problemText(parsed.problems);
};

test('a board file without slots is as good as before', () => {
  const parsed = parseBoard({ ...board, slots: undefined });
  expect(parsed.ok && parsed.value.slots).toEqual([]);
});

test.each<[string, Partial<Slot>, string]>([
  ['a place', { ref: 'U99' }, 'slots U99: It names U99, which is not among the parts.'],
  ['a memory', { image: 'U77' }, 'slots U4: It names U77, which is not among the parts.'],
  ['a rail', { supply: 'V99' }, 'slots U4: It names rail V99, which is not listed.'],
  ['a function', { functions: ['fly'] }, 'slots U4: It names function fly, which is not listed.'],
  ['a strap', { straps: { top: 'R5', bottom: 'C14' } }, 'slots U4: Expected a resistor as a strap; C14 is not one.'],
])('%s that is not there is named', (_, change, problem) => {
  expect(refused([{ ...slot, ...change }])).toBe(problem);
});

test('a place listed twice is named', () => {
  expect(refused([slot, slot])).toBe('slots U4: This place is listed twice; expected each once.');
});
