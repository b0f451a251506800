import { parseReferencesCsv, type ReferenceReading } from '../../reference';
import { defineImporter, MIB, refusedFor, type Outcome } from '../importer';
import { headText, isText, textOf } from '../text/encoding';

export interface ReferencesSummary {
  readonly kind: 'references';
  readonly readings: number;
  readonly boards: readonly string[];
  readonly points: number;
}

const HEADER = /(?:^|[\n,;\t"])board["\s]*[,;\t]\s*"?point["\s]*[,;\t]\s*"?value/i;

export const referencesTable = defineImporter<readonly ReferenceReading[], ReferencesSummary>({
  id: 'references',
  title: 'readings of good boards',
  mostBytes: 32 * MIB,
  score: ({ bytes }) => (isText(bytes) && HEADER.test(headText(bytes, 4096)) ? 0.97 : 0),
  read: ({ bytes }): Outcome<readonly ReferenceReading[], ReferencesSummary> => {
    const parsed = parseReferencesCsv(textOf(bytes).text);
    if (!parsed.ok) return refusedFor(parsed.problems);
    const readings = parsed.value;
    return {
      kind: 'understood',
      summary: {
        kind: 'references',
        readings: readings.length,
        boards: [...new Set(readings.map((r) => r.boardId))],
        points: new Set(readings.map((r) => r.point)).size,
      },
      questions: [],
      notes: [],
      value: readings,
    };
  },
});
