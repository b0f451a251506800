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

/** The unit that a remark above the list names, such as `### Unit = mm`. */
function unitInRemarks(text: string): number | undefined {
  const named = /^#.*\bunits?\b\W{0,5}([a-z]+)/im.exec(text)?.[1].toLowerCase() ?? '';
  if (/^(?:mm|millimet)/.test(named)) return UNIT_MM.mm;
  if (/^(?:mils?|thou)$/.test(named)) return UNIT_MM.mil;
  return /^in(?:ch(?:es)?)?$/.test(named) ? UNIT_MM.inch : undefined;
}

type Placements = PlacementList['placements'];
const spanOf = (list: readonly number[]): [number, number] => [Math.min(...list), Math.max(...list)];
/** So far beyond the front's parts those of the back may lie on the same board, as a share of its width. Engineering estimate. */
const BESIDE = 0.25;
const LEAST_IN_FRONT = 3;

/** The back's x counted from the other side: its parts lie off the board that the front spans, and on it once turned over. */
function turnedOver(placements: Placements): Placements | undefined {
  const front = placements.filter((p) => p.side === 'front');
  const back = placements.filter((p) => p.side === 'back');
  if (front.length < LEAST_IN_FRONT || back.length === 0) return undefined;
  const [least, most] = spanOf(front.map((p) => p.x));
  const beside = BESIDE * (most - least);
  const isOn = (x: number): boolean => x > least - beside && x < most + beside;
  if (back.some((p) => isOn(p.x)) || !back.every((p) => isOn(-p.x))) return undefined;
  return placements.map((p) => (p.side === 'back' ? { ...p, x: -p.x } : p));
}

function readPlacement(file: ImportFile, answers: Answers): Outcome<PlacementList, PlacementSummary> {
  const { text } = textOf(file.bytes);
  const rows = rowsWith(text, isPlacementHeader);
  if (!rows) return refused('Expected a header with the columns reference, X and Y; got none.');
  const list = placementsFrom(rows);
  if (!list.ok) return refusedFor(list.problems);
  const turned = turnedOver(list.value.placements);
  const placements = (answers.backX === 'counted from behind' && turned) || list.value.placements;
  const questions: ImportQuestion[] = [];
  if (turned && answers.backX === undefined)
    questions.push({
      id: 'backX',
      why: 'The parts of the back lie beside the board that those of the front span: is their x counted from behind?',
      choices: ['counted from behind', 'as it stands'],
    });
  const span = (of: (p: (typeof placements)[number]) => number): number =>
    placements.reduce((m, p) => Math.max(m, of(p)), -Infinity) -
    placements.reduce((m, p) => Math.min(m, of(p)), Infinity);
  const [width, height] = [span((p) => p.x), span((p) => p.y)];
  const size = Math.max(width, height);
  const bySize = size >= BOARD_MM[0] && size <= BOARD_MM[1] ? 1 : undefined;
  const stated = list.value.unitMm ?? unitInRemarks(text);
  const unitMm = stated ?? UNIT_MM[answers.units ?? ''] ?? bySize;
  const question: ImportQuestion = {
    id: 'units',
    why: `The list names no unit and its parts span ${size.toFixed(2)}.`,
    choices: Object.keys(UNIT_MM),
  };
  if (unitMm === undefined) questions.push(question);
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
    questions,
    notes: stated === undefined && unitMm !== undefined && answers.units === undefined ? ['Lengths: taken as mm.'] : [],
    value: unitMm === undefined || questions.length > 0 ? undefined : { placements, unitMm },
  };
}

export const placementTable = defineImporter<PlacementList, PlacementSummary>({
  id: 'placement',
  title: 'a list of where parts are placed',
  mostBytes: 16 * MIB,
  score: ({ bytes }) => (isText(bytes) && rowsWith(headText(bytes, 16 * 1024), isPlacementHeader) ? 0.95 : 0),
  read: readPlacement,
});
