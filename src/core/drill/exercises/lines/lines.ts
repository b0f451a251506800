import { z } from 'zod';
import type { Board } from '../../../board';
import { seededRandom, type Random } from '../../../math';
import {
  conversation,
  OFFERS_65W,
  PD_OUTCOMES,
  readDialogue,
  readMessages,
  readPacket,
  TROUBLES,
  type ConversationTrouble,
  type PdOutcome,
  type PdPacket,
  type SentPacket,
} from '../../../usb';
import { defineExercise, exerciseHead, type ExerciseResult } from '../definition';

const MOST_QUESTIONS = 20;
/** Answers that are offered for each. */
const CHOICES = 4;

export const linesSchema = z.strictObject({
  kind: z.literal('lines'),
  ...exerciseHead,
  questions: z.number().int().min(1).max(MOST_QUESTIONS),
});
export type LinesDrill = z.infer<typeof linesSchema>;

export const linesDoneSchema = z.strictObject({
  answers: z.array(z.enum(PD_OUTCOMES).nullable()).max(MOST_QUESTIONS).describe('what went wrong, by conversation'),
});
export type LinesDone = z.infer<typeof linesDoneSchema>;

export const OUTCOME_WORDS: Readonly<Record<PdOutcome, string>> = {
  silent: 'Nobody talks: the charger sees no pull-down',
  offersUnanswered: 'The offers go unanswered',
  offersNotAsked: 'The offers are acknowledged, but nothing is asked for',
  refused: 'The request is refused',
  notReady: 'Accepted, but the supply never comes',
  contract: 'A contract is reached and holds',
  collapsed: 'A contract is reached, then collapses',
  noisy: 'The line is noisy: check sums fail',
};

/** A conversation to be read, message by message, and what may have happened. */
export interface LinesQuestion {
  readonly lines: readonly { readonly atS: number; readonly who: string; readonly words: string }[];
  readonly choices: readonly PdOutcome[];
}

const packetOf = ({ atS, set, bytes, corrupt }: SentPacket): PdPacket => {
  if (bytes.length === 0) return { atS, set, objects: [], intact: true };
  const received = bytes.slice();
  // One bit of the check sum, as a disturbed line gives it.
  if (corrupt) received[received.length - 1] ^= 1;
  return readPacket(atS, set, received, true);
};

function packetsOf({ seed }: LinesDrill, question: number): PdPacket[] {
  const random = seededRandom(seed + 100 * question);
  const trouble = pick(TROUBLES, random) as ConversationTrouble;
  const want = 1 + Math.floor(random() * OFFERS_65W.length);
  const wantMa = 500 * (1 + Math.floor(random() * 5));
  return conversation({ trouble, offers: OFFERS_65W, want, wantMa, cable: random() < 0.4 }).map(packetOf);
}

const pick = <T>(list: readonly T[], random: Random): T => list[Math.floor(random() * list.length)];

const who = ({ header, set }: PdPacket): string => {
  if (!header) return 'line';
  if (set !== 'SOP') return 'cable';
  return header.source ? 'charger' : 'device';
};

/** A conversation with everything that a capture holds, acknowledgements too: by them it is told who lives. */
export function linesQuestion(board: Board, drill: LinesDrill, question: number): LinesQuestion {
  const packets = packetsOf(drill, question);
  const truth = truthOf(board, packets).stop;
  const random = seededRandom(drill.seed + 100 * question + 1);
  const others = PD_OUTCOMES.filter((o) => o !== truth);
  while (others.length >= CHOICES) others.splice(Math.floor(random() * others.length), 1);
  const choices = [...others];
  choices.splice(Math.floor(random() * CHOICES), 0, truth);
  return {
    lines: readMessages(packets).map(({ packet, words }) => ({ atS: packet.atS, who: who(packet), words })),
    choices,
  };
}

const truthOf = (board: Board, packets: readonly PdPacket[]) =>
  readDialogue(board, board.ports[0].id, { packets, line: packets.length > 0 ? 'CC1' : undefined });

export interface LinesReview extends ExerciseResult {
  readonly kind: 'lines';
  readonly rows: readonly {
    readonly truth: PdOutcome;
    readonly answer: PdOutcome | null;
    /** What it implicates on this board, most to the point first. */
    readonly implicates: readonly string[];
  }[];
}

function reviewLines(board: Board, drill: LinesDrill, { answers }: LinesDone): LinesReview {
  const rows = Array.from({ length: drill.questions }, (_, q) => {
    const { stop, implicated } = truthOf(board, packetsOf(drill, q));
    return { truth: stop, answer: answers[q] ?? null, implicates: implicated.map(({ ref, why }) => `${ref}: ${why}`) };
  });
  const right = rows.filter((r) => r.answer === r.truth).length;
  const missed = rows.find((r) => r.answer !== r.truth);
  const asked = Math.max(1, drill.questions);
  return {
    kind: 'lines',
    rows,
    end: 'read',
    // What guessing brings counts as nothing.
    score: Math.max(0, (right / asked - 1 / CHOICES) / (1 - 1 / CHOICES)),
    lesson: missed
      ? `Missed: “${OUTCOME_WORDS[missed.truth]}”.${missed.implicates[0] ? ` Then look first at ${missed.implicates[0]}.` : ''}`
      : 'Every conversation was read right.',
  };
}

export const linesExercise = defineExercise<LinesDrill, LinesDone, LinesReview>({
  kind: 'lines',
  title: 'What went wrong on the line',
  about: 'Conversations between charger and device, message by message: say where each stopped.',
  spec: linesSchema,
  done: linesDoneSchema,
  course: ({ id, device, ports }) =>
    ports.length === 0
      ? []
      : [
          {
            ...{ kind: 'lines', format: 1, name: `Conversations, ${device}` },
            ...{ boardId: id, seed: 5200, grade: 4, questions: 6 },
          },
        ],
  review: reviewLines,
});
