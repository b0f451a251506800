/** Files in random styles, written from known samples, read back: right or asked, never wrong without a word. The large runs are in the benchmark. */
import { captureOff, randomCapture } from './random-capture';
import { firmwareOff, randomFirmware } from './random-firmware';
import { mutated } from './mutate';
import { randomMeterTable, randomThermoTable } from './random-table';
import { verdictOf } from './verdict';
import { seededRandom } from '../../math';
import { IMPORTERS, importFile } from '..';

test.each([
  ['meters', randomMeterTable, 21],
  ['thermocouple loggers', randomThermoTable, 22],
] as const)('500 tables of %s: none wrong, none refused, at most one in ten asked', (_, write, seed) => {
  const random = seededRandom(seed);
  let asked = 0;
  for (let i = 0; i < 500; i++) {
    const table = write(random);
    const { kind, why } = verdictOf(table);
    if (kind === 'asked') asked++;
    else if (kind !== 'right') throw new Error(`${kind}: ${why}\n${table.style}`);
  }
  expect(asked).toBeLessThanOrEqual(50);
});

test('40 captures: message by message as they were sent', () => {
  const random = seededRandom(23);
  for (let i = 0; i < 40; i++) {
    const file = randomCapture(random);
    const { off, asked } = captureOff(file);
    if (off) throw new Error(`${off} (asked ${asked.join(', ')})\n${file.style}`);
  }
});

test('300 firmware files: the bytes at their addresses, and no other text is taken for bytes', () => {
  const random = seededRandom(24);
  for (let i = 0; i < 300; i++) {
    const file = randomFirmware(random);
    const { off } = firmwareOff(file);
    if (off) throw new Error(`${off}\n${file.style}`);
  }
});

test('500 mutated files through every importer: an answer, never a crash', () => {
  const random = seededRandom(25);
  const writers = [randomMeterTable, randomThermoTable, randomFirmware];
  for (let i = 0; i < 500; i++) {
    const made = writers[i % writers.length](random);
    const bytes = mutated(made.bytes, random);
    const importer = IMPORTERS[i % IMPORTERS.length];
    const { outcome } = importFile({ name: made.name, bytes }, {}, importer.id);
    if (outcome.kind === 'refused') expect(outcome.problems[0].message).toMatch(/xpected/);
    else expect(outcome.value === undefined).toBe(outcome.questions.length > 0);
  }
});
