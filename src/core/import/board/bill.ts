import { billFrom, isBillHeader, isPlacementHeader, type BillLine } from '../../netlist';
import { defineImporter, MIB, refused, refusedFor, type ImportFile, type Outcome } from '../importer';
import { headText, isText, textOf } from '../text/encoding';
import { rowsWith } from './rows';

export interface BillSummary {
  readonly kind: 'bill';
  readonly parts: number;
  readonly values: number;
}

const HEAD_BYTES = 16 * 1024;

function readBill({ bytes }: ImportFile): Outcome<readonly BillLine[], BillSummary> {
  const rows = rowsWith(textOf(bytes).text, isBillHeader);
  if (!rows) return refused('Expected a header with designators and values or counts; got none.');
  const lines = billFrom(rows);
  if (!lines.ok) return refusedFor(lines.problems);
  return {
    kind: 'understood',
    summary: { kind: 'bill', parts: lines.value.length, values: lines.value.filter((l) => l.value !== '').length },
    questions: [],
    notes: [],
    value: lines.value,
  };
}

export const billOfMaterial = defineImporter<readonly BillLine[], BillSummary>({
  id: 'bill-of-material',
  title: 'a bill of material',
  mostBytes: 16 * MIB,
  score: ({ bytes }) => {
    if (!isText(bytes)) return 0;
    const head = headText(bytes, HEAD_BYTES);
    // A list with places is read as one.
    return rowsWith(head, isPlacementHeader) ? 0 : rowsWith(head, isBillHeader) ? 0.9 : 0;
  },
  read: readBill,
});
