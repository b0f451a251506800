import { SUPPLY_STATES, supplyIn, type SupplyCase } from './supply-cases';
import { takeSafely } from '../interlock';
import type { MeterQuantity } from '../multimeter';

/** The pages at which a hand takes readings: each goes through the same door. */
const PAGES = ['outside', 'probe', 'prove'] as const;
const QUANTITIES: readonly MeterQuantity[] = ['V', 'Ω', 'drop'];

/** Every supply before and after the reading, alone and in pairs, with every function, at every page. */
const MOMENTS = SUPPLY_STATES.flatMap((before) => SUPPLY_STATES.map((after) => [before, after] as const));

test.each(PAGES)(
  'at %s no ohms and no diode mode with a source that is not known to be off, before or after',
  async () => {
    let taken = 0;
    for (const first of MOMENTS)
      for (const second of MOMENTS)
        for (const quantity of QUANTITIES) {
          let read = false;
          const sources = [supplyIn('one', first), supplyIn('two', second)];
          const result = await takeSafely(quantity, sources, async () => {
            read = true;
            return 1;
          });
          const allOff = [...first, ...second].every((s) => s === 'off');
          const offBefore = [first[0], second[0]].every((s) => s === 'off');
          expect(read).toBe(quantity === 'V' || offBefore);
          expect('value' in result).toBe(quantity === 'V' || allOff);
          if ('value' in result) taken++;
        }
    // Every pair of moments in volts, and the one in which all is off in each of the other two.
    expect(taken).toBe(MOMENTS.length ** 2 + 2);
  },
);

test('each state that stands in the way has its own sentence', async () => {
  const words = async (state: SupplyCase): Promise<string> => {
    const result = await takeSafely('Ω', [supplyIn('Bench,Supply,1,1', [state, state])], async () => 1);
    return 'refused' in result ? result.refused : 'taken';
  };
  expect(await words('on')).toBe(
    'Expected no power on the board for this reading; the output of Bench,Supply,1,1 is on. Switch it off first.',
  );
  expect(await words('unknown')).toContain('does not say whether its output is off');
  expect(await words('lost')).toContain('the line to Bench,Supply,1,1 is lost');
  expect(await words('throws')).toContain('is lost');
  expect(await words('off')).toBe('taken');
});
