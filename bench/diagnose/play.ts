import {
  OUTSIDE,
  accessFor,
  deeper,
  openingMinutes,
  proofMinutes,
  shieldFor,
  testMinutes,
  updateBelief,
  rankActions,
  repairMinutes,
  targetKey,
  type Access,
  type Belief,
  type Fault,
  type Measurement,
  type OutsideThing,
  type Practice,
  type Predictor,
  type Reading,
  type RepairTarget,
  type TestContext,
} from '../../src/core/diagnose';

/** A reading of a board with these faults. */
export type Read = (m: Measurement, faults: readonly Fault[], state: Pick<Reading, 'replaced' | 'swapped'>) => Reading;

/** What is done next: a test, or the work that some needs ask for. */
export type Step = { readonly test: Measurement } | { readonly needs: readonly RepairTarget[] };
export type Choose = (belief: Belief, context: TestContext) => Step | undefined;

/** The application's own choice. */
export const ownChoice: Choose = (belief, context) => {
  const { tests, work, repairFirst } = rankActions(belief, context);
  if (work && (repairFirst || tests.length === 0)) return { needs: [work.need.target] };
  return tests[0] && { test: tests[0].measurement };
};

export interface Played {
  readonly minutes: number;
  /** True where every fault was mended and the proof held. */
  readonly proven: boolean;
  readonly steps: readonly string[];
}

const MOST_STEPS = 150;
const MOST_WORKS = 8;
const NONE: ReadonlySet<string> = new Set();

/** Plays a job from the closed device to its proof: tests and work as chosen, each work followed by a proof. */
export function playJob(
  predictor: Predictor,
  faults: readonly Fault[],
  choose: Choose,
  read: Read,
  practice: Practice,
  worth?: number,
): Played {
  const { board } = predictor;
  const readings: Reading[] = [];
  const replaced: string[] = [];
  const swapped: OutsideThing[] = [];
  const steps: string[] = [];
  let left = faults;
  let access: Access = 'closed';
  const bare = new Set<string>();
  let minutes = 0;
  let works = 0;
  let real = false;
  const take = (m: Measurement): void => {
    const there = m.kind === 'liftedResistance' ? left.filter((f) => f.ref !== m.ref) : left;
    readings.push(read(m, there, { replaced: [...replaced], swapped: [...swapped] }));
  };
  while (steps.length < MOST_STEPS && works < MOST_WORKS) {
    const known = updateBelief(predictor, readings, [], practice, replaced);
    const belief = real ? withoutSound(known) : known;
    const step = choose(belief, {
      access,
      bare,
      absent: NONE,
      replaced: [...replaced],
      swapped,
      taken: readings,
      practice,
      worth,
    });
    if (!step) break;
    if ('test' in step) {
      steps.push(JSON.stringify(step.test));
      minutes += testMinutes(board, step.test, access, bare);
      const shield = shieldFor(board, step.test);
      if (shield) bare.add(shield.id);
      access = deeper(access, accessFor(step.test));
      take(step.test);
      continue;
    }
    works++;
    steps.push(`work: ${step.needs.map(targetKey).join(' and ')}`);
    minutes += proofMinutes(board);
    for (const need of step.needs) {
      const { minutes: own, onBoard } = repairMinutes(board, need);
      minutes += own + (onBoard ? openingMinutes(access) : 0);
      if (onBoard) access = 'out';
      const key = targetKey(need);
      if (onBoard && !replaced.includes(key)) replaced.push(key);
      if (need.kind === 'outside' && !swapped.includes(need.what)) swapped.push(need.what);
      left = left.filter((f) => targetKey(f.mendedBy) !== key && (f.ref === '' || f.ref !== key));
    }
    if (left.length === 0) return { minutes, proven: true, steps };
    // The complaint is still there: the proof's readings count, and "nothing wrong here" is ruled out.
    real = true;
    for (const port of board.ports) for (const { side } of port.sides) take({ kind: 'usbMeter', port: port.id, side });
    for (const f of board.functions) take({ kind: 'functionTest', fn: f.id });
  }
  return { minutes, proven: false, steps };
}

/** The belief without the hypothesis that nothing is wrong. */
function withoutSound(belief: Belief): Belief {
  const { faults, likely } = belief;
  const sound = faults.findIndex((f) => f.id === OUTSIDE);
  const p = likely.p.map((v, k) => (likely.first[k] === sound && likely.second[k] === faults.length ? 0 : v));
  const total = p.reduce((s, v) => s + v, 0);
  return { ...belief, likely: { ...likely, p: p.map((v) => v / total) } };
}
