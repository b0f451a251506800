import { draftFromFile } from '../../src/core/import';
import { kicadText } from '../../src/core/netlist/tests/kicad-text';
import { plausibleBoard } from '../diagnose/plausible-board';
import { demoBoard } from '../../demo/files';
import { draftBoard, foreignFromRecords, infer, parseIpc356, recordsOf, writeIpc356 } from '../../src/core/netlist';
import { note, ratio, section } from '../print';

const RECORDS = 20_000;

/** A netlist of 20,000 records read and drafted, against splitting the same text into lines. */
export function benchNetlist(): void {
  section(`A netlist of ${RECORDS} records: read and drafted`);
  const records = recordsOf(demoBoard('marshdesk-2-b'));
  const many = Array.from({ length: RECORDS }, (_, i) => {
    const record = records[i % records.length];
    return {
      ...record,
      ref: record.ref && `${record.ref.replace(/\d+$/, '')}${1 + Math.floor(i / 4)}`,
      pin: String(1 + (i % 4)),
    };
  });
  const text = writeIpc356(many);
  const splitting = seconds(() => text.split('\n').map((line) => line.trim()));
  let parts = 0;
  const reading = seconds(() => {
    const parsed = parseIpc356(text);
    if (!parsed.ok) return;
    const foreign = foreignFromRecords(parsed.value.records);
    parts = (draftBoard('bench', foreign, infer(foreign)).board.parts as unknown[]).length;
  });
  note(`${(text.length / 1e6).toFixed(1)} MB, ${parts} parts, ${reading.toFixed(2)} s (wanted within 2 s)`);
  ratio('reading / splitting into lines', reading / splitting, 'printed for comparison');
}

const PARTS = 3000;

/** A layout of 3,000 parts from its text to what is left to be asked, against splitting the same text into lines. */
export function benchLayout(): void {
  section(`A layout of ${PARTS} parts, .kicad_pcb: read and drafted`);
  const text = kicadText(plausibleBoard(PARTS), 8);
  const bytes = new TextEncoder().encode(text);
  const splitting = seconds(() => text.split('\n').map((line) => line.trim()));
  const before = process.memoryUsage().heapUsed;
  let asked = '';
  const reading = seconds(() => {
    const outcome = draftFromFile({ id: 'large', file: { name: 'large.kicad_pcb', bytes }, answers: {} });
    if (outcome.kind === 'refused' || !outcome.value) throw new Error('expected a layout that is read');
    const { draft } = outcome.value;
    asked = `${draft.asked.length} parts in doubt, ${draft.near!.rails.filter((r) => r.volts === undefined).length} rails without volts, ${draft.near!.railsBeyond.length} supplies counted as loads`;
  });
  const grownMb = (process.memoryUsage().heapUsed - before) / 1e6;
  note(
    `${(text.length / 1e6).toFixed(1)} MB, ${reading.toFixed(2)} s (wanted within 10 s), heap ${grownMb.toFixed(0)} MB more; ${asked}`,
  );
  ratio('reading / splitting into lines', reading / splitting, 'printed for comparison');
}

function seconds(work: () => void): number {
  const start = performance.now();
  work();
  return (performance.now() - start) / 1000;
}
