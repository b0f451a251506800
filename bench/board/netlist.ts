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

function seconds(work: () => void): number {
  const start = performance.now();
  work();
  return (performance.now() - start) / 1000;
}
