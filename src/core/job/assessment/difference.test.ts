import { demoBoard } from '../../../../demo/files';
import { BenchPlay } from '../tests/bench-play';

const heron = demoBoard('heronlog-4-c');
const shorted = (): BenchPlay => new BenchPlay(heron).type('look j1 good', 'pack out', 'out', 'tp7 1.6 ohm');
const words = (bench: BenchPlay): string[] => bench.view.differences.map((d) => `${d.after}: ${d.summary}`);

test('before any work there is nothing to compare', () => {
  expect(shorted().view.differences).toEqual([]);
});

// Common practice: after the suspect is off, measure again. Gone: the part was it. Still there: another part on the line.
test('a short that goes with the part was the part’s', () => {
  expect(words(shorted().type('off u4', 'tp7 9.1 kohm'))).toEqual(['9.10 kΩ: the short went with U4: it was U4']);
});

test('a short that stays points at what else is on the line, likeliest first', () => {
  const [said] = words(shorted().type('off u4', 'tp7 1.7 ohm'));
  expect(said).toMatch(
    /^1\.70 Ω: the short stays without U4: another part on this line: next on this line |^1\.70 Ω: the short stays without U4/,
  );
  expect(said).toContain('C14');
  expect(said).not.toMatch(/line.*U4/);
});

test('a short that comes back with the new part is the new part’s, or its solder', () => {
  const bench = shorted().type('off u4', 'tp7 9.1 kohm', 'on u4 new', 'tp7 1.5 ohm');
  expect(words(bench)[0]).toBe('1.50 Ω: a short that came with U4: the new part, or its solder');
  expect(bench.view.differences[0].state).toBe('bad');
});

test('voltages and functions: mended, not mended, or new since the work', () => {
  const bench = new BenchPlay(heron).type(
    'look j1 good',
    'pd18 0.01 v',
    'vbus_f 5.02 v',
    'try data fails',
    'try charge works',
  );
  bench.type('off u4', 'on u4 new', 'pd18 1.8 v', 'try data fails', 'try charge fails');
  expect(words(bench)).toEqual([
    'fails: new since U4: look at the work itself first',
    'fails: U4 did not mend it',
    '1.80 V: mended with U4',
  ]);
});
