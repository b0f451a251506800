import type { Board } from '../board';
import { DiagnoseSession, Predictor, isOutsideTest, measurementId, type Measurement } from '../diagnose';
import { goodWalk, type GoodPoint } from './good-walk';

/** What a stage can do with what the file says. */
export interface StageCarry {
  readonly stage: 'outside' | 'probe' | 'image' | 'heat' | 'prove';
  readonly title: string;
  /** 0 to 1, of what the stage rests on; what is counted is said in the words. */
  readonly share: number;
  readonly summary: string;
}

/** A reading of a good board that would help, and the line that begins with it. */
export interface WorthLearning {
  readonly label: string;
  readonly line: string;
  /** What knowing it saves on a job, minutes on average: bits that its test gains, at the minutes that a bit costs here. */
  readonly savesMinutes: number;
}

export interface Carry {
  readonly stages: readonly StageCarry[];
  /** Most first. */
  readonly worth: readonly WorthLearning[];
  /** The points to read on a known-good board. */
  readonly walk: readonly GoodPoint[];
}

/** Savings below this are not worth a probe's walk, minutes. */
const LEAST_MINUTES = 0.2;
const MOST_WORTH = 5;

/**
 * How far a board's file carries: what each stage can answer with it, and what would help most to know. What is not known
 * costs information: each test is weighed on the board as it is and on the same board with its ranges known.
 */
export function carryOf(board: Board): Carry {
  const [now, known] = [board, asKnown(board)].map((b) => arrivalOf(b));
  const lost = known.tests
    .map((t) => ({ ...t, bits: Math.max(0, t.bits - (now.bitsOf.get(measurementId(t.measurement)) ?? 0)) }))
    .filter((t) => t.bits > 0);
  const worth = new Map<string, WorthLearning>();
  for (const { measurement, bits } of lost) {
    const learn = lineFor(board, measurement);
    if (!learn) continue;
    const savesMinutes = bits * now.minutesPerBit + (worth.get(learn.line)?.savesMinutes ?? 0);
    worth.set(learn.line, { ...learn, savesMinutes });
  }
  const share = (outside: boolean): number => {
    const tests = known.tests.filter((t) => isOutsideTest(t.measurement) === outside);
    const all = tests.reduce((sum, t) => sum + t.bits, 0);
    const kept = tests.reduce((sum, t) => sum + Math.min(t.bits, now.bitsOf.get(measurementId(t.measurement)) ?? 0), 0);
    return all > 0 ? kept / all : 1;
  };
  return {
    stages: [
      {
        stage: 'outside',
        title: 'Outside',
        share: share(true),
        summary: 'of what its tests would tell with every figure known',
      },
      {
        stage: 'probe',
        title: 'Probe',
        share: share(false),
        summary: 'of what its tests would tell with every figure known',
      },
      imageCarry(board),
      heatCarry(board),
      proveCarry(board),
    ],
    worth: [...worth.values()]
      .filter((w) => w.savesMinutes >= LEAST_MINUTES)
      .sort((a, b) => b.savesMinutes - a.savesMinutes)
      .slice(0, MOST_WORTH),
    walk: goodWalk(asKnown(board)),
  };
}

/** The same board with every range taken as its middle: what the file could carry if somebody had read it all. */
const asKnown = (board: Board): Board => ({
  ...board,
  nets: Object.fromEntries(Object.entries(board.nets).map(([name, { diodeWithinV: _, ...net }]) => [name, net])),
  parts: board.parts.map(({ loadsWithin: _, ...part }) => part),
  rails: board.rails.map((r) => ({ ...r, tolerance: Math.min(r.tolerance, KNOWN_TOLERANCE) })),
});
const KNOWN_TOLERANCE = 0.05;

interface Arrival {
  readonly tests: readonly { readonly measurement: Measurement; readonly bits: number }[];
  readonly bitsOf: ReadonlyMap<string, number>;
  readonly minutesPerBit: number;
}

/** What every test tells when a device has just come in, and what a bit costs in minutes. */
function arrivalOf(board: Board): Arrival {
  const { ranked, belief } = new DiagnoseSession(Predictor.of(board)).position();
  const { tests } = ranked;
  const expected = Math.min(
    ...tests.map((t) => t.expectedMinutes ?? Infinity),
    ranked.work?.expectedMinutes ?? Infinity,
  );
  const entropy = belief.p.reduce((sum, p) => (p > 0 ? sum - p * Math.log2(p) : sum), 0);
  return {
    tests,
    bitsOf: new Map(tests.map((t) => [measurementId(t.measurement), t.bits])),
    minutesPerBit: Number.isFinite(expected) && entropy > 0 ? expected / entropy : 0,
  };
}

/** The line that says what a good board reads in a test. */
function lineFor(board: Board, m: Measurement): Pick<WorthLearning, 'label' | 'line'> | undefined {
  if (m.kind === 'groundResistance')
    return { label: `${m.net} to ground on a good board`, line: `good ${m.net.toLowerCase()} ohm ` };
  const net = m.kind === 'contactDrop' ? board.parts.find((p) => p.ref === m.port)?.pins[m.pin] : undefined;
  return net === undefined
    ? undefined
    : { label: `${net} in diode mode on a good board`, line: `good ${net.toLowerCase()} drop ` };
}

const shareOf = (known: number, all: number): number => (all === 0 ? 1 : known / all);

function imageCarry(board: Board): StageCarry {
  const memory = board.ports.some((p) => p.imagePart !== undefined);
  const summary = !memory
    ? 'no memory of its own: there is no image to read'
    : board.imageFamily === undefined
      ? 'bytes are read, compared and judged by their values; the meaning of regions is not known'
      : `regions as the family ${board.imageFamily} has them`;
  return { stage: 'image', title: 'Image', share: !memory || board.imageFamily !== undefined ? 1 : 0.5, summary };
}

function heatCarry({ parts, assumed = [] }: Board): StageCarry {
  const placed = parts.filter((p) => !p.assumed?.includes('place')).length;
  const packed = parts.filter((p) => !p.assumed?.includes('package')).length;
  const bare = assumed.includes('stack') ? ', thickness and layers by look' : '';
  return {
    stage: 'heat',
    title: 'Heat',
    share: shareOf(placed + packed, 2 * parts.length),
    summary: `${placed} of ${parts.length} parts have their place, ${packed} their package${bare}`,
  };
}

function proveCarry({ rails }: Board): StageCarry {
  const level = rails.filter((r) => r.expect.kind === 'bus' || r.tolerance <= LOOSEST_LEVEL).length;
  return {
    stage: 'prove',
    title: 'Prove',
    share: shareOf(level, rails.length),
    summary: `${level} of ${rails.length} rails have a level to be held against`,
  };
}
/** A rail whose window is wider is one whose level nobody has read. */
const LOOSEST_LEVEL = 0.15;
