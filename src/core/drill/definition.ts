import { z } from 'zod';
import type { Board } from '../board';
import { idealReading, type Fault, type HistoryFlag, type Predictor } from '../diagnose';
import { seededRandom, type Random } from '../math';
import { faultDraws, together } from './hidden';

/** A drill as a file: which board, how many faults, how honest the story, and the seed that all is drawn from. */
export const drillSchema = z.strictObject({
  format: z.literal(1),
  name: z.string().trim().min(1).max(80),
  boardId: z.string().min(1).max(80),
  seed: z
    .number()
    .int()
    .min(0)
    .max(2 ** 31),
  faults: z
    .union([z.literal(1), z.literal(2), z.literal(3), z.literal('unlisted')])
    .describe('how many listed faults at once, or one that no list holds'),
  hidden: z
    .array(z.string().min(1).max(80))
    .min(1)
    .max(3)
    .optional()
    .describe('the faults by their names, of a drill that was made of a job; drawn where it is left out'),
  misleading: z.boolean().default(false).describe('the owner tells something that has nothing to do with it'),
  grade: z.number().int().min(1).max(10).describe('how hard, from 1'),
});
export type Drill = z.infer<typeof drillSchema>;

/** What the learner is told, and what is hidden. */
export interface DrawnDrill {
  readonly faults: readonly Fault[];
  /** True where a list holds none of it. */
  readonly isUnlisted: boolean;
  /** The owner's words. */
  readonly story: string;
  readonly history: readonly HistoryFlag[];
}

/** Draws what is hidden. The same drill on the same board is always the same. */
export function drawDrill(predictor: Predictor, { seed, faults: count, hidden, misleading }: Drill): DrawnDrill {
  const random = seededRandom(seed);
  const draws = faultDraws(predictor);
  const drawn = count === 'unlisted' ? [draws.unlisted(random)] : draws.listed(count, random);
  const faults = hidden ? predictor.faults.filter((f) => hidden.includes(f.id)) : drawn;
  const remark = misleading ? pick(REMARKS, random) : undefined;
  return {
    ...{ faults, isUnlisted: !hidden && count === 'unlisted' },
    story: [symptomOf(predictor, faults), remark?.words].filter(Boolean).join(' '),
    history: remark ? [remark.flag] : [],
  };
}

/** Names of hidden faults that the board does not know, as of a drill that was made for another revision. */
export function unknownFaults(predictor: Predictor, { hidden = [] }: Drill): readonly string[] {
  const known = new Set(predictor.faults.map((f) => f.id));
  return hidden.filter((id) => !known.has(id));
}

/** What owners say that leads astray. Made up. */
const REMARKS: readonly { readonly flag: HistoryFlag; readonly words: string }[] = [
  { flag: 'liquid', words: 'It stood in the rain last month, but dried well.' },
  { flag: 'fall', words: 'It fell from the bench some weeks ago.' },
  { flag: 'unknownCharger', words: 'It has been on the neighbour’s charger.' },
  { flag: 'earlierRepair', words: 'Somebody had it open in spring.' },
];

const pick = <T>(list: readonly T[], random: Random): T => list[Math.floor(random() * list.length)];

/** The complaint that such a board brings in: what its owner sees of the functions and of the port, both ways round. */
function symptomOf(predictor: Predictor, faults: readonly Fault[]): string {
  const { board } = predictor;
  const hidden = together(faults);
  const failing = board.functions.filter(
    (f) => idealReading(predictor, { kind: 'functionTest', fn: f.id }, hidden).value.kind === 'fail',
  );
  const dead = portsThatStayDead(board, predictor, hidden);
  if (dead.length === board.ports.length && dead.every((d) => d.sides === 'both'))
    return failing.length === board.functions.length
      ? 'Dead: nothing happens when it is plugged in.'
      : 'Does not charge.';
  const port = dead.map((d) => `${d.port} ${d.sides === 'both' ? 'does nothing' : 'charges only one way round'}.`);
  const works = failing.map((f) => `${capital(f.what)} does not work.`);
  const words = [...port, ...works].join(' ');
  return words === '' ? 'Goes off now and then; nobody knows when.' : words;
}

/** Below this current a port does nothing that an owner would call charging, A. Engineering estimate. */
const CHARGES_FROM_A = 0.2;

function portsThatStayDead(board: Board, predictor: Predictor, hidden: Fault) {
  return board.ports.flatMap(({ id, sides }) => {
    const dead = sides.filter(({ side }) => {
      const { value } = idealReading(predictor, { kind: 'usbMeter', port: id, side }, hidden);
      return value.kind === 'pair' && value.amps < CHARGES_FROM_A;
    });
    if (dead.length === 0) return [];
    return [{ port: id, sides: dead.length === sides.length ? ('both' as const) : ('one' as const) }];
  });
}

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** What each grade asks: faults, and whether the story misleads. */
const GRADES: readonly Pick<Drill, 'faults' | 'misleading'>[] = [
  { faults: 1, misleading: false },
  { faults: 1, misleading: false },
  { faults: 1, misleading: true },
  { faults: 1, misleading: true },
  { faults: 2, misleading: false },
  { faults: 2, misleading: false },
  { faults: 2, misleading: true },
  { faults: 3, misleading: false },
  { faults: 'unlisted', misleading: false },
  { faults: 3, misleading: true },
];

/** Ten graded drills on the boards that there are, in turn. */
export function courseOn(boards: readonly Pick<Board, 'id' | 'device'>[]): Drill[] {
  if (boards.length === 0) return [];
  return GRADES.map((asked, i): Drill => {
    const { id, device } = boards[i % boards.length];
    return { format: 1, name: `Drill ${i + 1}, ${device}`, boardId: id, seed: 4100 + i, grade: i + 1, ...asked };
  });
}
