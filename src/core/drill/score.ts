import type { DrillPlay, Mistake, StepReview } from './play';

/** How a drill went, by the scale of the planner: minutes to a proven cure. */
export interface DrillScore {
  /** 1 for the program's own minutes or fewer, less in the proportion of minutes spent; 0 where it was not solved. */
  readonly score: number;
  readonly minutes: number;
  readonly parMinutes: number;
  readonly regretMinutes: number;
  readonly mistakes: readonly { readonly name: Mistake; readonly words: string; readonly step: number }[];
  /** The one step that cost most, and what would have been better; none where nothing cost. */
  readonly lesson?: string;
}

/** What each mistake is, in the words of the trade. */
export const MISTAKE_WORDS: Readonly<Record<Mistake, string>> = {
  powerBeforeLook: 'power before the look into the port',
  voltsBeforeShort: 'a voltage before the short was excluded',
  workOnGuess: 'work on a guess while a test would have told',
  imageUnread: 'an image written over one that nobody had read',
  takenTwice: 'the same reading again without a reason',
  sentOnTooEarly: 'sent on while something listed explained it',
};

/** @param parMinutes what the program itself took for the same drill. */
export function scoreOf(play: DrillPlay, parMinutes: number): DrillScore {
  const { reviews, minutes } = play;
  const regretMinutes = reviews.reduce((sum, r) => sum + r.regretMinutes, 0);
  const worst = reviews.reduce<StepReview | undefined>(
    (most, r) => (r.regretMinutes > (most?.regretMinutes ?? 0) ? r : most),
    undefined,
  );
  return {
    ...{ minutes, parMinutes, regretMinutes },
    score: play.isSolved ? Math.min(1, parMinutes / Math.max(minutes, 1e-9)) : 0,
    mistakes: reviews.flatMap(({ mistake }, i) =>
      mistake ? [{ name: mistake, words: MISTAKE_WORDS[mistake], step: i + 1 }] : [],
    ),
    ...(worst && {
      lesson: `${worst.words} cost ${worst.regretMinutes.toFixed(0)} minutes in expectation; better: ${worst.best}.`,
    }),
  };
}
