import { z } from 'zod';
import type { Board } from '../board';
import {
  accessFor,
  boardMeasurements,
  deeper,
  DiagnoseSession,
  measurementId,
  measurementSchema,
  measurementTitle,
  openingMinutes,
  powerNeedOf,
  proofMinutes,
  readingName,
  repairMinutes,
  shieldFor,
  targetKey,
  testMinutes,
  valueLabel,
  workLabel,
  workSchema,
  type Access,
  type Fault,
  type Measurement,
  type OutsideThing,
  type Predictor,
  type SessionAnswer,
} from '../diagnose';
import { seededRandom } from '../math';
import { fail, ok, type Result } from '../result';
import { NoisyBench } from './noisy-bench';
import { drawDrill, type DrawnDrill, type Drill } from './definition';

/** One thing that a learner does. */
export const drillStepSchema = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('measure'), measurement: measurementSchema }),
  z.strictObject({ do: z.literal('work'), work: workSchema }),
  z.strictObject({ do: z.literal('hint') }).describe('asks what the program would do; it costs minutes'),
  z.strictObject({ do: z.literal('sendOn') }).describe('no listed fault explains it: stop, or send it on'),
  z.strictObject({ do: z.literal('giveUp') }),
]);
export type DrillStep = z.infer<typeof drillStepSchema>;

/** A mistake of the trade, by its name. */
export type Mistake =
  'powerBeforeLook' | 'voltsBeforeShort' | 'workOnGuess' | 'imageUnread' | 'takenTwice' | 'sentOnTooEarly';

/** What a step was, what it gave, and what the best one at that moment would have been. */
export interface StepReview {
  readonly words: string;
  readonly answer: string;
  readonly minutes: number;
  /** What the program would have done, and the minutes the whole job was then expected to take. */
  readonly best: string;
  readonly bestMinutes?: number;
  /** What the whole job was expected to take with the step that was taken. */
  readonly ownMinutes?: number;
  /** Minutes that the step is expected to cost more than the best one; 0 for the best one. */
  readonly regretMinutes: number;
  /** Bits for each minute that the best test had more than the one taken. */
  readonly bitsPerMinuteLost: number;
  readonly mistake?: Mistake;
}

export type DrillEnd = 'cured' | 'sentOn' | 'wronglySentOn' | 'gaveUp';

/** What a hint costs, minutes. Engineering estimate: a look over the shoulder. */
const HINT_MINUTES = 6;
/** Works with less chance than this while a test would tell are guesses. Engineering estimate. */
const GUESS_BELOW = 0.1;
/** Seeds of the bench lie apart from those of the faults. */
const BENCH_SEED = 1_000_000;

type Work = z.infer<typeof workSchema>;

/** A step beside the best one of its moment. */
interface Held {
  readonly best: SessionAnswer['step'];
  readonly bestMinutes?: number;
  readonly ownMinutes?: number;
  readonly isBest: boolean;
  readonly lost: number;
  readonly mistake?: Mistake;
}

const proofWords = (before: number, left: number): string => {
  if (left === 0) return 'The proof holds: cured.';
  return left < before ? 'Something is better, but the complaint is still there.' : 'The complaint is still there.';
};

/** A drill as it is played: the truth is hidden, instruments are noisy, and each step is held against the best one of its moment. */
export class DrillPlay {
  readonly drawn: DrawnDrill;
  readonly reviews: StepReview[] = [];
  private readonly session: DiagnoseSession;
  private readonly bench: NoisyBench;
  private readonly replaced: string[] = [];
  private readonly swapped: OutsideThing[] = [];
  private readonly removedShields = new Set<string>();
  private readonly taken = new Set<string>();
  private readonly looked = new Set<string>();
  private readonly imagesRead = new Set<string>();
  private left: readonly Fault[];
  private access: Access = 'closed';
  private spent = 0;
  private ended?: DrillEnd;

  constructor(
    readonly predictor: Predictor,
    readonly drill: Drill,
    /** Left out where only the minutes are asked for: each review asks the planner. */
    private readonly isReviewed = true,
  ) {
    this.drawn = drawDrill(predictor, drill);
    this.left = this.drawn.faults;
    this.bench = new NoisyBench(predictor, seededRandom(drill.seed + BENCH_SEED));
    this.session = new DiagnoseSession(predictor);
    this.session.note({ story: { history: [...this.drawn.history] } });
  }

  get board(): Board {
    return this.predictor.board;
  }
  get minutes(): number {
    return this.spent;
  }
  get end(): DrillEnd | undefined {
    return this.ended;
  }
  get isSolved(): boolean {
    return this.ended === 'cured' || this.ended === 'sentOn';
  }

  /** What the program would do now: as the screens propose it, the look into the port before any power. */
  proposal(): SessionAnswer['step'] {
    const { step } = this.session.answer();
    const powered = step.kind === 'test' && powerNeedOf(step.measurement).kind !== 'none';
    const look = powered ? this.lookAhead() : undefined;
    if (!look) return step;
    const words = measurementTitle(this.board, look);
    return { kind: 'test', words, measurement: look, stem: '', minutes: testMinutes(this.board, look, this.access) };
  }
  private lookAhead(): Measurement | undefined {
    const [port] = this.board.ports;
    const look = boardMeasurements(this.board).find((m) => m.kind === 'visualInspection' && m.ref === port.id);
    return this.access === 'closed' && look && !this.looked.has(port.id) ? look : undefined;
  }

  /** Takes a step; one that makes no sense on this board changes nothing. */
  take(step: DrillStep): Result<StepReview> {
    if (this.ended) return fail('Expected a drill that goes on; this one is over.');
    switch (step.do) {
      case 'measure':
        return this.measure(step.measurement);
      case 'work':
        return this.work(step.work);
      case 'hint':
        return this.noted({ words: 'Asked what the program would do', answer: this.proposal().words }, HINT_MINUTES);
      case 'sendOn':
        return this.sendOn();
      case 'giveUp':
        this.ended = 'gaveUp';
        return this.noted({ words: 'Gave up', answer: `It was ${this.truth()}.` }, 0);
    }
  }

  /** What was hidden, in words. */
  truth(): string {
    return this.drawn.faults.map((f) => f.label).join(', and ');
  }

  private measure(m: Measurement): Result<StepReview> {
    const held = this.isReviewed ? this.heldAgainstBest(m) : undefined;
    const minutes = testMinutes(this.board, m, this.access, this.removedShields);
    const there = m.kind === 'liftedResistance' ? this.left.filter((f) => f.ref !== m.ref) : this.left;
    const { replaced, swapped } = this;
    const { value } = this.bench.read(m, there, { replaced: [...replaced], swapped: [...swapped] });
    const noted = this.session.note({ reading: { measurement: m, value } });
    if (!noted.ok) return noted;
    const shield = shieldFor(this.board, m);
    if (shield) this.removedShields.add(shield.id);
    if (m.kind === 'visualInspection') this.looked.add(m.ref);
    if (m.kind === 'imageCheck') this.imagesRead.add(m.ref);
    this.access = deeper(this.access, accessFor(m));
    this.taken.add(this.keyOf(m));
    const words = { words: readingName(this.board, m), answer: valueLabel(m, value) };
    return this.noted(words, minutes, held);
  }

  /** A test beside what the program would do now. */
  private heldAgainstBest(m: Measurement): Held {
    const best = this.proposal();
    const isBest =
      (best.kind === 'test' || best.kind === 'again') && measurementId(best.measurement) === measurementId(m);
    const weighed = this.session.answer(m).why!;
    const bestMinutes = expectedOf(best);
    const ownMinutes = isBest ? bestMinutes : weighed.expectedMinutes;
    const mistake = this.mistakeOf(m, best, isBest);
    const bestRate = best.kind === 'test' && best.bits !== undefined ? best.bits / best.minutes : 0;
    const lost = isBest ? 0 : Math.max(0, bestRate - weighed.bits / weighed.minutes);
    return { best, bestMinutes, ownMinutes, isBest, lost, mistake };
  }

  /** The same test on the same board. */
  private keyOf = (m: Measurement): string => `${measurementId(m)} ${this.replaced.join()} ${this.swapped.join()}`;

  private mistakeOf(m: Measurement, best: SessionAnswer['step'], isBest: boolean): Mistake | undefined {
    if (isBest) return undefined;
    const isPowered = powerNeedOf(m).kind !== 'none';
    if (isPowered && this.lookAhead()) return 'powerBeforeLook';
    if (m.kind === 'railVoltage' && !this.session.isInOrder(m)) return 'voltsBeforeShort';
    return this.taken.has(this.keyOf(m)) && best.kind !== 'again' ? 'takenTwice' : undefined;
  }

  private work(work: Work): Result<StepReview> {
    const key = targetKey(work);
    const { minutes: own, onBoard } = repairMinutes(this.board, work);
    const minutes = own + (onBoard ? openingMinutes(this.access) : 0) + proofMinutes(this.board);
    const held = this.isReviewed ? this.workAgainstBest(work, minutes) : undefined;
    const noted = this.session.note({ work });
    if (!noted.ok) return noted;
    if (onBoard) this.access = 'out';
    if (work.kind === 'outside') this.swapped.push(work.what);
    else this.replaced.push(key);
    const before = this.left.length;
    this.left = this.left.filter((f) => targetKey(f.mendedBy) !== key && (f.ref === '' || f.ref !== key));
    if (this.left.length === 0) this.ended = 'cured';
    else this.proofFailed();
    const answer = proofWords(before, this.left.length);
    return this.noted({ words: workLabel(work), answer }, minutes, held);
  }

  /** A work beside what the program would do now. */
  private workAgainstBest(work: Work, minutes: number): Held {
    const key = targetKey(work);
    const best = this.proposal();
    const isBest = best.kind === 'work' && targetKey(best.work) === key;
    const weighed = this.session.position().ranked.weighWork(key);
    const bestMinutes = expectedOf(best);
    // Work that no listed fault asks for only costs: the job stands where it stood.
    const ownMinutes = isBest ? bestMinutes : (weighed?.expectedMinutes ?? (bestMinutes ?? 0) + minutes);
    const isGuess = (weighed?.cureChance ?? 0) < GUESS_BELOW && best.kind === 'test';
    // What stands in the chip is gone with the write, whatever the program thinks of its chances.
    const isUnread = work.kind === 'image' && !this.imagesRead.has(work.ref);
    const mistake = isBest ? undefined : isUnread ? 'imageUnread' : isGuess ? 'workOnGuess' : undefined;
    return { best, bestMinutes, ownMinutes, isBest, lost: 0, mistake };
  }

  /** The proof after a work that did not cure: the port both ways, and every function. */
  private proofFailed(): void {
    this.session.note({ proof: 'failed' });
    const asked: Measurement[] = [
      ...this.board.ports.flatMap((p) =>
        p.sides.map(({ side }): Measurement => ({ kind: 'usbMeter', port: p.id, side })),
      ),
      ...this.board.functions.map((f): Measurement => ({ kind: 'functionTest', fn: f.id })),
    ];
    const { replaced, swapped } = this;
    for (const measurement of asked) {
      const { value } = this.bench.read(measurement, this.left, { replaced: [...replaced], swapped: [...swapped] });
      this.session.note({ reading: { measurement, value } });
    }
  }

  private sendOn(): Result<StepReview> {
    const best = this.proposal();
    const isBest = best.kind === 'stop';
    this.ended = this.drawn.isUnlisted ? 'sentOn' : 'wronglySentOn';
    const mistake = this.drawn.isUnlisted || isBest ? undefined : 'sentOnTooEarly';
    const words = { words: 'Sent on', answer: `It was ${this.truth()}.` };
    return this.noted(words, 0, { best, isBest, lost: 0, mistake });
  }

  private noted(
    { words, answer }: Pick<StepReview, 'words' | 'answer'>,
    minutes: number,
    held?: Held,
  ): Result<StepReview> {
    this.spent += minutes;
    const { bestMinutes, ownMinutes, isBest } = held ?? { isBest: true };
    const regret = isBest || bestMinutes === undefined || ownMinutes === undefined ? 0 : ownMinutes - bestMinutes;
    const review: StepReview = {
      ...{ words, answer, minutes, bestMinutes, ownMinutes },
      best: held?.best.words ?? '',
      regretMinutes: Math.max(0, regret),
      bitsPerMinuteLost: held?.lost ?? 0,
      ...(held?.mistake && { mistake: held.mistake }),
    };
    this.reviews.push(review);
    return ok(review);
  }
}

const expectedOf = (step: SessionAnswer['step']): number | undefined =>
  step.kind === 'test' || step.kind === 'again' || step.kind === 'work' ? step.expectedMinutes : undefined;

/** Replays what was done, up to the first step that makes no sense. */
export function replay(predictor: Predictor, drill: Drill, steps: readonly DrillStep[]): DrillPlay {
  const play = new DrillPlay(predictor, drill);
  for (const step of steps) if (!play.take(step).ok) break;
  return play;
}

/** A step by which the program's own proposal is followed. */
export function followed(step: SessionAnswer['step']): DrillStep {
  switch (step.kind) {
    case 'test':
    case 'again':
      return { do: 'measure', measurement: step.measurement };
    case 'work':
      return { do: 'work', work: step.work };
    case 'stop':
      return { do: 'sendOn' };
    case 'handBack':
    case 'done':
      return { do: 'giveUp' };
  }
}

const MOST_STEPS = 120;

/** The drill as the program itself plays it, on the same readings where it asks for the same: the par that learners are held against. */
export function parOf(predictor: Predictor, drill: Drill): DrillPlay {
  const play = new DrillPlay(predictor, drill);
  while (!play.end && play.reviews.length < MOST_STEPS) play.take(followed(play.proposal()));
  return play;
}
