import { parseBoard, type Board } from '../board';
import type { Result } from '../result';

/** Lists of a board file whose entries have names, and the member that names them. */
const NAMED = {
  parts: 'ref',
  points: 'id',
  rails: 'id',
  ports: 'id',
  functions: 'id',
  slots: 'ref',
  shields: 'id',
  screws: 'id',
} as const;
/** Records of a board file, by name. */
const RECORDS = ['nets', 'packages'] as const;
/** What stands for itself. */
const PLAIN = [
  'device',
  'name',
  'revision',
  'outlineMm',
  'thicknessMm',
  'layers',
  'copperAreas',
  'alloy',
  'imageFamily',
  'assumed',
] as const;

type Section = keyof typeof NAMED | (typeof RECORDS)[number] | (typeof PLAIN)[number];

/** One line in which two files of a board differ. */
export interface BoardDifference {
  readonly section: Section;
  /** Name of the entry; empty for what stands for itself. */
  readonly name: string;
  readonly kind: 'added' | 'removed' | 'changed';
  /** `C14: only in theirs`, `VIN: diodeV 0.45 → 0.48`. */
  readonly summary: string;
  readonly mine: unknown;
  readonly theirs: unknown;
}

const same = (a: unknown, b: unknown): boolean => canonical(a) === canonical(b);

/** JSON with the names of objects in order: two writers of one thing write one text. */
function canonical(value: unknown): string {
  return JSON.stringify(value, (_key, v: unknown) =>
    typeof v === 'object' && v !== null && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0)))
      : v,
  );
}

/** Every line in which another file of a board differs from the own one, section by section. */
export function boardDifferences(mine: Board, theirs: Board): BoardDifference[] {
  return [
    ...PLAIN.flatMap((section) => differenceOf(section, '', mine[section], theirs[section])),
    ...RECORDS.flatMap((section) => differencesOf(section, mine[section], theirs[section])),
    ...(Object.keys(NAMED) as (keyof typeof NAMED)[]).flatMap((section) =>
      differencesOf(section, byName(section, mine), byName(section, theirs)),
    ),
  ];
}

function byName(section: keyof typeof NAMED, board: Board): Record<string, unknown> {
  const list = board[section] as unknown as readonly Record<string, unknown>[];
  return Object.fromEntries(list.map((entry) => [String(entry[NAMED[section]]), entry]));
}

function differencesOf(
  section: Section,
  mine: Readonly<Record<string, unknown>>,
  theirs: Readonly<Record<string, unknown>>,
): BoardDifference[] {
  return [...new Set([...Object.keys(mine), ...Object.keys(theirs)])].flatMap((name) =>
    differenceOf(section, name, mine[name], theirs[name]),
  );
}

function differenceOf(section: Section, name: string, mine: unknown, theirs: unknown): BoardDifference[] {
  if (same(mine, theirs)) return [];
  const kind = mine === undefined ? 'added' : theirs === undefined ? 'removed' : 'changed';
  const of = name || section;
  const summary =
    kind === 'added'
      ? `${of}: only in theirs`
      : kind === 'removed'
        ? `${of}: only in yours`
        : `${of}: ${changeWords(mine, theirs)}`;
  return [{ section, name, kind, summary, mine, theirs }];
}

/** Longer values are not written out. */
const MOST_LETTERS = 24;
const MOST_MEMBERS = 3;

function changeWords(mine: unknown, theirs: unknown): string {
  const isPlain = (v: unknown): v is Record<string, unknown> =>
    typeof v === 'object' && v !== null && !Array.isArray(v);
  if (!isPlain(mine) || !isPlain(theirs)) return valueWords(mine, theirs);
  const names = [...new Set([...Object.keys(mine), ...Object.keys(theirs)])].filter((n) => !same(mine[n], theirs[n]));
  const told = names.slice(0, MOST_MEMBERS).map((n) => `${n} ${valueWords(mine[n], theirs[n])}`);
  return [...told, ...(names.length > MOST_MEMBERS ? [`and ${names.length - MOST_MEMBERS} more`] : [])].join(', ');
}

function valueWords(mine: unknown, theirs: unknown): string {
  const text = (v: unknown): string => (v === undefined ? 'nothing' : typeof v === 'string' ? v : JSON.stringify(v));
  const [a, b] = [text(mine), text(theirs)];
  return a.length > MOST_LETTERS || b.length > MOST_LETTERS ? 'differs' : `${a} → ${b}`;
}

/**
 * The own file with some lines taken from the other one; what was not taken stays as it is.
 * @returns the board, checked, or why what was taken does not make one: a part whose net was left out.
 */
export function mergeBoard(mine: Board, taken: readonly BoardDifference[]): Result<Board> {
  const next = JSON.parse(JSON.stringify(mine)) as Record<string, unknown>;
  for (const { section, name, theirs } of taken) {
    if (section in NAMED) {
      const key = NAMED[section as keyof typeof NAMED];
      const list = next[section] as Record<string, unknown>[];
      const at = list.findIndex((entry) => entry[key] === name);
      if (theirs === undefined) list.splice(at, 1);
      else if (at >= 0) list[at] = theirs as Record<string, unknown>;
      else list.push(theirs as Record<string, unknown>);
    } else if ((RECORDS as readonly string[]).includes(section)) {
      const record = next[section] as Record<string, unknown>;
      if (theirs === undefined) delete record[name];
      else record[name] = theirs;
    } else next[section] = theirs;
  }
  return parseBoard(inFeedingOrder(next));
}

/** Rails that were added stand behind what feeds them. */
function inFeedingOrder(board: Record<string, unknown>): Record<string, unknown> {
  const left = [...(board.rails as Board['rails'])];
  const rails: Board['rails'] = [];
  while (left.length > 0) {
    const at = left.findIndex((r) => r.feeds.every((f) => f.from === null || rails.some((o) => o.id === f.from)));
    // What is fed by nothing that is there is left to the check to name.
    rails.push(...left.splice(Math.max(0, at), 1));
  }
  return { ...board, rails };
}
