import { z } from 'zod';
import { partByRef, type Board } from '../board';
import { fail, ok, type Result } from '../result';
import { deeper, type Access } from './access';
import { curedFaults, suspects, updateBelief, type Belief, type Proof, type Suspect } from './belief';
import {
  HISTORY_FLAGS,
  OUTSIDE_THINGS,
  clearedTarget,
  currentKey,
  targetKey,
  type HistoryFlag,
  type OutsideThing,
  type RepairTarget,
} from './faults';
import { accessFor, checkReading, entryStem, measurementTitle, placeOf } from './measurement';
import { measurementSchema, type Measurement } from './measurements/registry';
import { proposalOf } from './next';
import { inBenchOrder } from './order';
import { standingOf, type NextMove, type Standing } from './next-move';
import { DEFAULT_PRACTICE, practiceSchema, type JobPractice } from './practice';
import type { Predictor } from './predictor';
import type { Reading } from './reading';
import { repairMinutes } from './repair-cost';
import { repairLabel } from './repairs';
import { expectedOf, whyNot } from './why-not';
import { rankActions, type RankedActions } from './step';
import { valueSchema } from './value';

/** A job as lines: what happened, one line each, and after each what is best done next. */

const ref = z.string().min(1).max(24);

/** What was worked on. */
export const workSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('part'), ref }).describe('a part was replaced by a new one'),
  z.object({ kind: z.literal('image'), ref }).describe('the image of a memory was written anew'),
  z.object({ kind: z.literal('joints'), ref }).describe('the joints of a part were touched up or flowed again'),
  z.object({ kind: z.literal('contacts'), ref }).describe('the contacts of a connector were cleaned'),
  z.object({ kind: z.literal('rail'), rail: ref }).describe('a wire was laid past the cracked trace to a rail'),
  z.object({ kind: z.literal('screw'), screw: ref }).describe('the board was mended where a screw went through'),
  z.object({ kind: z.literal('software') }).describe('what the device runs on was restored'),
  z
    .object({ kind: z.literal('outside'), what: z.enum(OUTSIDE_THINGS) })
    .describe('charger, cable or pack was exchanged'),
]);

/** One line of a session: exactly one of its members. */
export const sessionLineSchema = z
  .strictObject({
    story: z
      .strictObject({
        history: z.array(z.enum(HISTORY_FLAGS)).max(HISTORY_FLAGS.length).default([]),
        worth: z.number().positive().max(1e6).optional().describe('what the device is worth to its owner'),
        practice: practiceSchema.optional().describe('what the bench sets for itself'),
      })
      .optional(),
    reading: z.strictObject({ measurement: measurementSchema, value: valueSchema }).optional(),
    off: ref.optional().describe('a part came off the board'),
    on: ref.optional().describe('the same part went back on'),
    work: workSchema.optional(),
    proof: z.enum(['passed', 'failed']).optional().describe('whether the complaint is gone'),
    why: measurementSchema.optional().describe('a test to be weighed against the one proposed'),
  })
  .refine((line) => Object.values(line).filter((v) => v !== undefined).length === 1, {
    message: 'Expected one of story, reading, off, on, work, proof, why in a line.',
  });
export type SessionLine = z.infer<typeof sessionLineSchema>;

const step = z.discriminatedUnion('kind', [
  z.object({
    kind: z.enum(['test', 'again']),
    words: z.string(),
    measurement: measurementSchema,
    point: z.string().optional().describe('where the probe goes'),
    stem: z.string().describe('what is typed before its value'),
    minutes: z.number(),
    bits: z.number().optional(),
    expectedMinutes: z.number().optional().describe('to a proven cure, with this test first'),
  }),
  z.object({
    kind: z.literal('work'),
    words: z.string(),
    work: workSchema,
    minutes: z.number(),
    chance: z.number().describe('that it is part of the cure'),
    expectedMinutes: z.number(),
  }),
  z.object({ kind: z.literal('stop'), words: z.string(), reason: z.enum(['unlisted', 'noChance', 'tooDear']) }),
  z.object({ kind: z.literal('handBack'), words: z.string(), chance: z.number() }),
  z.object({ kind: z.literal('done'), words: z.string() }),
]);

const share = z.object({ ref: z.string(), words: z.string(), p: z.number() });

/** What a line is answered with. */
export const sessionAnswerSchema = z.object({
  step,
  suspects: z.array(share).describe('what may be wrong now, likeliest first'),
  cured: z.array(share).describe('what was wrong and is mended'),
  unlisted: z.object({
    p: z.number().describe('that something is at work that no list holds'),
    at: z.array(z.object({ net: z.string().nullable(), p: z.number() })),
  }),
  noneListed: z.boolean().describe('true where no listed fault explains what was read'),
  misfit: z
    .object({ p: z.number(), strange: z.array(z.string()).describe('readings that hardly fit, worst first') })
    .nullable()
    .describe('probability of readings this bad under the best listed explanation'),
  modelled: z
    .object({ parts: z.number().int(), beyond: z.number().int() })
    .nullable()
    .describe('of a large board: parts round the ports and rails that are modelled whole, and those beyond; else null'),
  why: z.object({ bits: z.number(), minutes: z.number(), expectedMinutes: z.number(), words: z.string() }).optional(),
});
export type SessionAnswer = z.infer<typeof sessionAnswerSchema>;

const MOST_SUSPECTS = 8;
const MOST_NETS = 3;
const LEAST_TOLD = 0.01;

/** The job so far, as it is carried from line to line. */
interface Course {
  readonly history: readonly HistoryFlag[];
  readonly practice: JobPractice;
  readonly worth?: number;
  readonly readings: readonly Reading[];
  readonly absent: readonly string[];
  readonly replaced: readonly string[];
  readonly swapped: readonly OutsideThing[];
  readonly proofs: readonly Proof[];
  /** Works whose proof failed. */
  readonly failed: number;
  readonly worked: boolean;
  readonly access: Access;
  readonly done: boolean;
}

/** Of a large board: how many parts are modelled whole, and how many lie beyond; null where all are. */
export const modelledOf = ({ case: { predictor } }: Belief): SessionAnswer['modelled'] =>
  predictor.neighbourhood
    ? { parts: predictor.neighbourhood.parts.size, beyond: predictor.neighbourhood.beyond }
    : null;

/** What a course of a job comes to: the belief, what is weighed, and what is best done next. */
export interface Position {
  readonly belief: Belief;
  readonly ranked: RankedActions;
  readonly standing: Standing;
}

/** A job on one board, line by line. The screens, the command line and the benchmarks ask the same code. */
export class DiagnoseSession {
  private course: Course = {
    history: [],
    practice: DEFAULT_PRACTICE,
    readings: [],
    absent: [],
    replaced: [],
    swapped: [],
    proofs: [],
    failed: 0,
    worked: false,
    access: 'closed',
    done: false,
  };
  private arrival?: number;
  private known?: { readonly course: Course; readonly position: Position };

  constructor(readonly predictor: Predictor) {}

  get board(): Board {
    return this.predictor.board;
  }

  get access(): Access {
    return this.course.access;
  }

  /** Takes a line and says what is best done next; a line that does not speak of this board changes nothing. */
  take(line: SessionLine): Result<SessionAnswer> {
    const noted = this.note(line);
    return noted.ok ? ok(this.answer(line.why)) : noted;
  }

  /** Takes a line without asking what is next: one of several that belong together. */
  note(line: SessionLine): Result<true> {
    const next = this.after(line);
    if (!next.ok) return next;
    this.course = next.value;
    return ok(true);
  }

  /** Whether a test may be taken now by the order of the bench: no volts before the rail's short is excluded, the outside first. */
  isInOrder(measurement: Measurement): boolean {
    return inBenchOrder(this.position().belief, this.context())({ measurement });
  }

  /** Where the job stands now. */
  position(): Position {
    const { course } = this;
    if (this.known?.course === course) return this.known.position;
    const { readings, history, practice, replaced, proofs } = course;
    const belief = updateBelief(this.predictor, readings, history, practice, replaced, proofs);
    const context = this.context();
    const ranked = rankActions(belief, context);
    this.arrival ??= expectedOf(ranked);
    const standing = standingOf(belief, readings, ranked, { ...context, arrivalMinutes: this.arrival });
    const position = { belief, ranked, standing };
    this.known = { course, position };
    return position;
  }

  private context() {
    const { absent, replaced, swapped, readings, practice, worth, access, failed } = this.course;
    const last = readings.at(-1);
    const near = last && placeOf(this.board, last.measurement);
    return {
      absent: new Set(absent),
      replaced,
      swapped,
      taken: readings,
      practice,
      worth,
      access,
      near,
      failedProofs: failed,
    };
  }

  private after(line: SessionLine): Result<Course> {
    const { course } = this;
    if (line.story) {
      const { history, worth, practice } = line.story;
      this.arrival = undefined;
      return ok({ ...course, history, worth, practice: practice ?? DEFAULT_PRACTICE });
    }
    if (line.reading) return this.afterReading(line.reading);
    if (line.off !== undefined) {
      if (!partByRef(this.board, line.off)) return fail(`Expected a part of this board; got "${line.off}".`);
      if (course.absent.includes(line.off)) return fail(`${line.off} is off the board already.`);
      return ok({ ...course, absent: [...course.absent, line.off], access: 'out' });
    }
    if (line.on !== undefined) {
      if (!course.absent.includes(line.on)) return fail(`Expected a part that is off the board; got "${line.on}".`);
      return ok({ ...course, absent: course.absent.filter((r) => r !== line.on) });
    }
    if (line.work) return this.afterWork(line.work);
    if (line.proof) {
      const { absent, replaced, swapped } = course;
      const proof: Proof = { holds: line.proof === 'passed', absent, replaced, swapped };
      const failed = course.failed + Number(line.proof === 'failed' && course.worked);
      return ok({ ...course, proofs: [...course.proofs, proof], failed, worked: false, done: proof.holds });
    }
    return ok(course);
  }

  private afterReading(reading: NonNullable<SessionLine['reading']>): Result<Course> {
    const { course } = this;
    const checked = checkReading(this.board, reading);
    if (!checked.ok) return checked;
    const { absent, replaced, swapped } = course;
    const access = deeper(course.access, accessFor(reading.measurement));
    return ok({ ...course, readings: [...course.readings, { ...reading, absent, replaced, swapped }], access });
  }

  private afterWork(work: z.infer<typeof workSchema>): Result<Course> {
    const { course } = this;
    if (work.kind === 'outside') {
      const swapped = [...new Set([...course.swapped, work.what])];
      return ok({ ...course, swapped, worked: true, done: false });
    }
    const key = targetKey(work);
    if (!clearedTarget(this.board, key)) return fail(`Expected something of this board to work on; got "${key}".`);
    const absent = work.kind === 'part' ? course.absent.filter((r) => r !== work.ref) : course.absent;
    const { onBoard } = repairMinutes(this.board, work);
    return ok({
      ...course,
      absent,
      replaced: [...course.replaced, currentKey(work, course.replaced)],
      access: onBoard ? 'out' : course.access,
      worked: true,
      done: false,
    });
  }

  /** What is best done next. @param why a test to be weighed against it. */
  answer(why?: Measurement): SessionAnswer {
    const { belief, ranked, standing } = this.position();
    const { readings } = this.course;
    const now = this.course;
    const listed = (list: readonly Suspect[]) =>
      list.filter((s) => s.p >= LEAST_TOLD).map(({ ref: name, label, p }) => ({ ref: name, words: label, p }));
    const { misfit } = standing;
    return {
      step: this.step(standing.move),
      suspects: listed(suspects(belief, now).slice(0, MOST_SUSPECTS)),
      cured: listed(curedFaults(belief, now)),
      unlisted: { p: standing.unlisted, at: standing.unlistedAt.slice(0, MOST_NETS) },
      noneListed: standing.noneListed,
      misfit: misfit
        ? { p: misfit.p, strange: misfit.strange.map((i) => measurementTitle(this.board, readings[i].measurement)) }
        : null,
      modelled: modelledOf(belief),
      ...(why && { why: whyNot(ranked, proposalOf(belief, why, this.context())) }),
    };
  }

  private step(move: NextMove): SessionAnswer['step'] {
    const { board, course } = this;
    if (course.done) return { kind: 'done', words: 'The proof holds.' };
    switch (move.kind) {
      case 'test':
      case 'again': {
        const m = move.kind === 'test' ? move.test.measurement : course.readings[move.reading].measurement;
        const { near } = this.context();
        const title = measurementTitle(board, m, near);
        const weighed = move.kind === 'test' ? move.test : proposalOf(this.position().belief, m, this.context());
        return {
          kind: move.kind,
          words: move.kind === 'test' ? title : `Take again before anything is replaced: ${title}`,
          measurement: m,
          point: placeOf(board, m, near)?.name,
          stem: entryStem(board, m, near),
          minutes: weighed.minutes,
          bits: weighed.bits,
          expectedMinutes: move.kind === 'test' ? move.test.expectedMinutes : undefined,
        };
      }
      case 'work':
        return this.workStep(move);
      case 'stop':
        return { kind: 'stop', words: STOP_WORDS[move.reason], reason: move.reason };
    }
  }

  private workStep({ need, cureChance }: Extract<NextMove, { kind: 'work' }>): SessionAnswer['step'] {
    const work = asWork(need.target);
    if (!work) return { kind: 'handBack', words: 'Nothing is wrong with this board: hand it back', chance: cureChance };
    return {
      kind: 'work',
      words: workLabel(need.target),
      work,
      minutes: need.minutes,
      chance: cureChance,
      expectedMinutes: this.position().ranked.work!.expectedMinutes,
    };
  }
}

/** Why to stop, in words. */
export const STOP_WORDS: Readonly<Record<Extract<NextMove, { kind: 'stop' }>['reason'], string>> = {
  unlisted: 'Stop, or send it on: no listed fault explains what was read, and no test says more',
  noChance: 'Stop, or send it on: no work has a chance of more than 2 in 100',
  tooDear: 'Stop: more is still to be spent than the device is worth',
};

/** A target as a line of the session names it; nothing for what is no work. */
function asWork(target: RepairTarget): z.infer<typeof workSchema> | undefined {
  if (target.kind === 'nothing' || target.kind === 'unlisted') return undefined;
  return target.kind === 'joints' ? { kind: 'joints', ref: target.ref } : target;
}

/** Work by its name; what is outside is exchanged. */
export function workLabel(target: RepairTarget): string {
  if (target.kind === 'nothing') return 'Nothing on this board';
  if (target.kind === 'unlisted') return 'Search for what no list holds';
  return target.kind === 'outside' ? `Exchange the ${target.what}` : repairLabel(target);
}
