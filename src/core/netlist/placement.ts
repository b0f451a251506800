import Papa from 'papaparse';
import { fail, failAll, ok, type Problem, type Result } from '../result';

/** Where a part sits, as a placement list says. */
export interface Placement {
  readonly ref: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly rotationDeg: number;
  readonly side: 'front' | 'back';
  /** What the list calls it: value, part or comment. */
  readonly what: string;
}

type Role = 'ref' | 'x' | 'y' | 'rotation' | 'side' | 'what';
const NAMES: Readonly<Record<Role, RegExp>> = {
  ref: /^(ref|designator|part ?ref|refdes)/i,
  x: /^(mid|center|pos|ref)?[-_ .]*x\b/i,
  y: /^(mid|center|pos|ref)?[-_ .]*y\b/i,
  rotation: /^(rot|angle)/i,
  side: /^(side|layer|tb)/i,
  what: /^(val|comment|part|description|package)/i,
};
const NEEDED: readonly Role[] = ['ref', 'x', 'y'];

/** Reads a placement list in CSV from any layout program: columns by their names, lengths in mm, mil or inch. */
export function parsePlacementCsv(text: string): Result<Placement[]> {
  const { data } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: true });
  const head = data.findIndex((row) => NEEDED.every((role) => row.some((cell) => NAMES[role].test(cell.trim()))));
  if (head < 0) return fail('Expected a header with the columns reference, X and Y; got none.');
  const columns = Object.fromEntries(
    (Object.keys(NAMES) as Role[]).map((role) => [role, data[head].findIndex((cell) => NAMES[role].test(cell.trim()))]),
  ) as Record<Role, number>;
  const headUnit = /mil/i.test(data[head].join(' ')) ? 0.0254 : /inch|\bin\b/i.test(data[head].join(' ')) ? 25.4 : 1;
  const problems: Problem[] = [];
  const list = data.slice(head + 1).flatMap((row, i): Placement[] => {
    const cell = (role: Role): string => (columns[role] < 0 ? '' : (row[columns[role]] ?? '').trim());
    const [x, y] = [length(cell('x'), headUnit), length(cell('y'), headUnit)];
    if (cell('ref') !== '' && x !== undefined && y !== undefined)
      return [
        {
          ref: cell('ref'),
          xMm: x,
          yMm: y,
          rotationDeg: Number(cell('rotation').replace(',', '.')) || 0,
          side: /^(b|bot|back)/i.test(cell('side')) ? 'back' : 'front',
          what: cell('what'),
        },
      ];
    problems.push({
      at: `line ${head + i + 2}`,
      message: `expected a reference and lengths; got "${row.join(', ').slice(0, 60)}".`,
    });
    return [];
  });
  return problems.length > 0 ? failAll(problems.slice(0, 5)) : ok(list);
}

/** A length with or without its unit, in mm. */
function length(text: string, usualMm: number): number | undefined {
  const found = /^([-+]?\d+(?:[.,]\d+)?)\s*(mm|mil|in|inch|")?$/i.exec(text);
  if (!found) return undefined;
  const unit = found[2]?.toLowerCase();
  const scale = unit === 'mm' ? 1 : unit === 'mil' ? 0.0254 : unit === undefined ? usualMm : 25.4;
  return Number(found[1].replace(',', '.')) * scale;
}
