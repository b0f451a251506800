import { isPlacementHeader, placementsFrom, type PlacementList } from '../../netlist';
import {
  defineImporter,
  MIB,
  refused,
  refusedFor,
  type Answers,
  type ImportFile,
  type ImportQuestion,
  type Outcome,
} from '../importer';
import { headText, isText, textOf } from '../text/encoding';
import { rowsWith } from './rows';

export interface PlacementSummary {
  readonly kind: 'placement';
  readonly parts: number;
  readonly back: readonly string[];
  readonly unit: string | null;
  /** From the least to the most, in the list's unit. */
  readonly width: number;
  readonly height: number;
}

const UNIT_MM: Readonly<Record<string, number>> = { mm: 1, mil: 0.0254, inch: 25.4 };
/** A list without a unit whose board would be of this size in mm is in mm; in mil or inch it would be a speck or a table. */
const BOARD_MM = [10, 400] as const;

function readPlacement(file: ImportFile, answers: Answers): Outcome<PlacementList, PlacementSummary> {
  const rows = rowsWith(textOf(file.bytes).text, isPlacementHeader);
  if (!rows) return refused('Expected a header with the columns reference, X and Y; got none.');
  const list = placementsFrom(rows);
  if (!list.ok) return refusedFor(list.problems);
  const { placements } = list.value;
  const span = (of: (p: (typeof placements)[number]) => number): number =>
    placements.reduce((m, p) => Math.max(m, of(p)), -Infinity) -
    placements.reduce((m, p) => Math.min(m, of(p)), Infinity);
  const [width, height] = [span((p) => p.x), span((p) => p.y)];
  const size = Math.max(width, height);
  const bySize = size >= BOARD_MM[0] && size <= BOARD_MM[1] ? 1 : undefined;
  const unitMm = list.value.unitMm ?? UNIT_MM[answers.units ?? ''] ?? bySize;
  const question: ImportQuestion = {
    id: 'units',
    why: `The list names no unit and its parts span ${size.toFixed(2)}.`,
    choices: Object.keys(UNIT_MM),
  };
  const unit = Object.keys(UNIT_MM).find((u) => UNIT_MM[u] === unitMm) ?? null;
  return {
    kind: 'understood',
    summary: {
      kind: 'placement',
      parts: placements.length,
      back: placements.filter((p) => p.side === 'back').map((p) => p.ref),
      unit,
      width,
      height,
    },
    questions: unitMm === undefined ? [question] : [],
    notes:
      list.value.unitMm === undefined && unitMm !== undefined && answers.units === undefined
        ? ['Lengths: taken as mm.']
        : [],
    value: unitMm === undefined ? undefined : { placements, unitMm },
  };
}

export const placementTable = defineImporter<PlacementList, PlacementSummary>({
  id: 'placement',
  title: 'a list of where parts are placed',
  mostBytes: 16 * MIB,
  score: ({ bytes }) => (isText(bytes) && rowsWith(headText(bytes, 16 * 1024), isPlacementHeader) ? 0.95 : 0),
  read: readPlacement,
});
