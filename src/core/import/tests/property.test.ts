/** Files in random styles, written from known samples, read back: right or asked, never wrong without a word. The large runs are in the benchmark. */
import { captureOff, randomCapture } from './random-capture';
import { firmwareOff, randomFirmware } from './random-firmware';
import { mutated } from './mutate';
import { randomMeterTable, randomThermoTable } from './random-table';
import { SEEDS } from './seeds';
import { verdictOf } from './verdict';
import { seededRandom } from '../../math';
import { IMPORTERS, importFile } from '..';

test.each([
  ['meters', randomMeterTable, 21],
  ['thermocouple loggers', randomThermoTable, 22],
] as const)('150 tables of %s: none wrong, none refused, at most one in ten asked', (_, write, seed) => {
  const random = seededRandom(seed);
  let asked = 0;
  for (let i = 0; i < 150; i++) {
    const table = write(random);
    const { kind, why } = verdictOf(table);
    if (kind === 'asked') asked++;
    else if (kind !== 'right') throw new Error(`${kind}: ${why}\n${table.style}`);
  }
  expect(asked).toBeLessThanOrEqual(15);
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

test('a small good file of each kind is taken for what it is', () => {
  expect(SEEDS.map((s) => s.importer)).toEqual(IMPORTERS.map((i) => i.id));
  for (const { importer, name, bytes } of SEEDS) {
    const read = importFile({ name, bytes });
    expect([importer, read.importer, read.outcome.kind]).toEqual([importer, importer, 'understood']);
  }
});

test('60 mutated files of each kind: an answer, never a crash', () => {
  const random = seededRandom(25);
  for (const { importer, name, bytes } of SEEDS)
    for (let i = 0; i < 60; i++) {
      const { outcome } = importFile({ name, bytes: mutated(bytes, random) }, {}, importer);
      if (outcome.kind === 'refused') expect(outcome.problems[0].message).toMatch(/xpected/);
      else expect(outcome.value === undefined).toBe(outcome.questions.length > 0);
    }
});
