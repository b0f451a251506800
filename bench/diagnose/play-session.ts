import {
  DiagnoseSession,
  accessFor,
  deeper,
  openingMinutes,
  proofMinutes,
  repairMinutes,
  shieldFor,
  targetKey,
  testMinutes,
  type Access,
  type Fault,
  type OutsideThing,
  type Predictor,
  type SessionAnswer,
  type SessionLine,
} from '../../src/core/diagnose';
import type { NoisyBench as Bench } from '../../src/core/drill';

/** How a hidden board went. */
export interface PlayedSession {
  readonly minutes: number;
  readonly cured: boolean;
  readonly stopped: boolean;
  readonly endless: boolean;
  /** True where the session said that no listed fault explains it before a second wrong part was replaced, or needed none. */
  readonly toldInTime: boolean;
  /** Works with their stated chances, and whether they were part of the cure. */
  readonly works: readonly { readonly p: number; readonly right: boolean }[];
  readonly steps: readonly string[];
}

const MOST_STEPS = 150;

/** What a hand adds to a sketch when the program knows no further at a net: the board with more on it, and the minutes it took. */
export type Growth = (net: string | null) => { readonly predictor: Predictor; readonly minutes: number } | undefined;

/**
 * Plays a job through the session as screens and command line do, from the closed device to its proof or its stop.
 * @param grow where the board is a sketch: asked before a stop is taken.
 */
export function playSession(
  predictor: Predictor,
  faults: readonly Fault[],
  bench: Bench,
  grow: Growth = () => undefined,
): PlayedSession {
  let session = new DiagnoseSession(predictor);
  const { board } = predictor;
  const said: SessionLine[] = [];
  const noted = (line: SessionLine): void => {
    said.push(line);
    session.note(line);
  };
  const replaced: string[] = [];
  const swapped: OutsideThing[] = [];
  const bare = new Set<string>();
  const works: { p: number; right: boolean }[] = [];
  const steps: string[] = [];
  let left = faults;
  let access: Access = 'closed';
  let minutes = 0;
  let wrongParts = 0;
  let toldInTime = false;
  let answer: SessionAnswer;
  const hear = (next: SessionAnswer): void => {
    answer = next;
    if (answer.noneListed && wrongParts < 2) toldInTime = true;
  };
  const say = (line: SessionLine): void => {
    const taken = session.take(line);
    if (!taken.ok) throw new Error(taken.problems[0].message);
    said.push(line);
    hear(taken.value);
  };
  const ended = (cured: boolean, stopped: boolean): PlayedSession => ({
    ...{ minutes, cured, stopped, works, steps },
    endless: !cured && !stopped,
    toldInTime: toldInTime || (wrongParts < 2 && (cured || stopped)),
  });
  say({ story: { history: [] } });
  while (steps.length < MOST_STEPS) {
    const { step } = answer!;
    switch (step.kind) {
      case 'test':
      case 'again': {
        const m = step.measurement;
        steps.push(`${step.kind} ${JSON.stringify(m)}`);
        minutes += testMinutes(board, m, access, bare);
        const shield = shieldFor(board, m);
        if (shield) bare.add(shield.id);
        access = deeper(access, accessFor(m));
        const there = m.kind === 'liftedResistance' ? left.filter((f) => f.ref !== m.ref) : left;
        say({ reading: { measurement: m, value: bench.read(m, there, { replaced, swapped }).value } });
        break;
      }
      case 'work':
      case 'handBack': {
        minutes += proofMinutes(board);
        if (step.kind === 'work') {
          const key = targetKey(step.work);
          const { minutes: own, onBoard } = repairMinutes(board, step.work);
          minutes += own + (onBoard ? openingMinutes(access) : 0);
          if (onBoard) access = 'out';
          const before = left.length;
          left = left.filter((f) => targetKey(f.mendedBy) !== key && (f.ref === '' || f.ref !== key));
          const right = left.length < before;
          if (!right && step.work.kind === 'part') wrongParts++;
          works.push({ p: step.chance, right });
          steps.push(`work ${key} ${step.chance.toFixed(2)} ${right ? 'right' : 'wrong'}`);
          if (step.work.kind === 'outside') swapped.push(step.work.what);
          else replaced.push(key);
          noted({ work: step.work });
        } else steps.push('hand back');
        if (left.length === 0) return ended(true, false);
        noted({ proof: 'failed' });
        for (const port of board.ports)
          for (const { side } of port.sides) {
            const measurement = { kind: 'usbMeter', port: port.id, side } as const;
            noted({
              reading: { measurement, value: bench.read(measurement, left, { replaced, swapped }).value },
            });
          }
        for (const f of board.functions) {
          const measurement = { kind: 'functionTest', fn: f.id } as const;
          noted({ reading: { measurement, value: bench.read(measurement, left, { replaced, swapped }).value } });
        }
        hear(session.answer());
        break;
      }
      case 'stop': {
        const more = grow(answer!.unlisted.at[0]?.net ?? null);
        if (more) {
          steps.push('drawn in');
          minutes += more.minutes;
          session = new DiagnoseSession(more.predictor);
          for (const line of said) session.note(line);
          hear(session.answer());
          break;
        }
        steps.push(`stop ${step.reason}`);
        return ended(false, true);
      }
      case 'done':
        return ended(true, false);
    }
  }
  return ended(false, false);
}
