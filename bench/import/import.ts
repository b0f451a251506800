import { importFile } from '../../src/core/import';
import { seededRandom } from '../../src/core/math';
import { saveImage } from '../../src/core/records';
import { note, ratio, section } from '../print';
import { mutated } from '../../src/core/import/tests/mutate';
import { captureOff, randomCapture } from '../../src/core/import/tests/random-capture';
import { firmwareOff, randomFirmware } from '../../src/core/import/tests/random-firmware';
import { randomMeterTable, randomThermoTable } from '../../src/core/import/tests/random-table';
import { SEEDS } from '../../src/core/import/tests/seeds';
import { verdictOf } from '../../src/core/import/tests/verdict';

const TABLES = 5000;
const CAPTURES = 500;
const FIRMWARE = 1000;
const MUTATED = 10_000;

/** Files in random styles, read back against what was written; mutated files; and the time of a long text against a raw file. */
export function benchImport(): void {
  section('Import: files in random styles, read back');
  benchTables();
  benchCaptures();
  benchFirmware();
  benchMutated();
  benchLongText();
}

function benchTables(): void {
  const random = seededRandom(5);
  const counts = { right: 0, asked: 0, refused: 0, wrong: 0 };
  for (let i = 0; i < TABLES; i++)
    counts[verdictOf(i % 2 ? randomMeterTable(random) : randomThermoTable(random)).kind]++;
  note(
    `tables: ${TABLES}, right ${counts.right}, asked and then right ${counts.asked}, refused ${counts.refused}, silently wrong ${counts.wrong}`,
  );
}

function benchCaptures(): void {
  const random = seededRandom(3);
  let [asked, off] = [0, 0];
  for (let i = 0; i < CAPTURES; i++) {
    const verdict = captureOff(randomCapture(random));
    if (verdict.asked.length > 0) asked++;
    if (verdict.off) off++;
  }
  note(`captures: ${CAPTURES}, asked ${asked}, wrong or refused ${off}`);
}

function benchFirmware(): void {
  const random = seededRandom(4);
  let [asked, off] = [0, 0];
  for (let i = 0; i < FIRMWARE; i++) {
    const verdict = firmwareOff(randomFirmware(random));
    if (verdict.asked) asked++;
    if (verdict.off) off++;
  }
  note(`firmware: ${FIRMWARE}, asked ${asked}, wrong, or a text taken for bytes ${off}`);
}

/** Mutated files of each kind through its importer: the longest time and the growth of memory. */
function benchMutated(): void {
  const random = seededRandom(9);
  const before = process.memoryUsage().rss;
  for (const { importer, name, bytes } of SEEDS) {
    let longest = 0;
    for (let i = 0; i < MUTATED; i++) {
      const file = { name, bytes: mutated(bytes, random) };
      const start = performance.now();
      importFile(file, {}, importer);
      longest = Math.max(longest, performance.now() - start);
    }
    note(`${importer}: ${MUTATED} mutated files, the slowest ${longest.toFixed(0)} ms (wanted within 2,000)`);
  }
  note(`memory grew by ${((process.memoryUsage().rss - before) / 1e6).toFixed(0)} MB (wanted within 500)`);
}

const LONG_BYTES = 16 * 2 ** 20;

function benchLongText(): void {
  const raw = new Uint8Array(LONG_BYTES).map((_, i) => (i * 31) & 255);
  const text = new TextEncoder().encode(saveImage([{ address: 0, bytes: raw }], 'intel-hex', { lineBytes: 32 }));
  const seconds = (name: string, bytes: Uint8Array): number => {
    const start = performance.now();
    importFile({ name, bytes }, {});
    return performance.now() - start;
  };
  const times = [1, 2, 3].map(() => [seconds('a.bin', raw), seconds('a.hex', text)]);
  const best = (k: number): number => Math.min(...times.map((t) => t[k]));
  ratio('16 MiB as Intel HEX / the same as raw bytes', best(1) / best(0), 'at most 10');
}
