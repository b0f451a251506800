/** Hot air, eyes and lines: what is judged is the truth of the seed, and a clean run is told as one. */
import { demoBoard } from '../../../../demo/files';
import { GOALS_BY_ALLOY, judgeHeat, simulateHeat } from '../../heat';
import { airExercise } from './air/air';
import { airSetup, airTruth, flyAir, planFlown, type AirDrill, type AirMove, type Flight } from './air/flight';
import { airSight, swims } from './air/seen';
import { dPrimeOf, eyesExercise, eyesPicture, flawsOf, type EyesDrill } from './eyes/eyes';
import { linesExercise, linesQuestion, type LinesDrill } from './lines/lines';
import { EXERCISE_NAMES, exerciseCourse, exerciseSchema, reviewExercise } from './registry';

const board = demoBoard('heronlog-4-c');
const HEAD = { format: 1, name: 'x', boardId: board.id, grade: 3 } as const;
const air: AirDrill = { kind: 'air', ...HEAD, ref: 'U4', seed: 8 };
const eyes: EyesDrill = { kind: 'eyes', ...HEAD, seed: 9100, pictures: 3, secondsEach: 20 };
const lines: LinesDrill = { kind: 'lines', ...HEAD, seed: 5200, questions: 8 };

const { nozzleMm, setting } = airSetup(board, 'U4');
const set = (atS: number, airSetC: number | null, heightMm: number): AirMove => ({
  ...{ do: 'air', atS, airSetC, flowLpm: setting.flowLpm, heightMm },
});
const WARM = [set(0, 250, 20), set(20, 340, 12), set(40, 370, 8)];
const flight = (...moves: AirMove[]): Flight => ({ nozzleMm, covers: ['U9', 'Q1'], plateSetC: null, moves });

/** A hand that raises in tens, touches every four seconds, and lifts when it gives way. */
function patient(): Flight {
  let flown = flight(...WARM);
  for (let s = 48; s < 200; s += 4) {
    const raised = s >= 60 && s % 8 === 4 ? [set(s, 370 + 10 * Math.floor((s - 52) / 8), 8)] : [];
    flown = { ...flown, moves: [...flown.moves, ...raised, { do: 'nudge', atS: s }] };
    if (swims(board, air, flyAir(board, air, flown, s + 1), s))
      return { ...flown, moves: [...flown.moves, { do: 'lift', atS: s + 1 }] };
  }
  throw new Error('it never swam');
}

describe('hot air by hand', () => {
  const clean = patient();
  const names = (done: Flight): string[] => airExercise.review(board, air, done).mistakes.map((m) => m.name);

  test('a patient hand lifts it molten; no mistake is claimed of a clean run', () => {
    const review = airExercise.review(board, air, clean);
    expect(review).toMatchObject({ mistakes: [], score: 1, end: 'lifted' });
    expect(review.coldestAtLiftC).toBeGreaterThanOrEqual(220);
    expect(review.couldS).toBeLessThanOrEqual(review.liftS!);
  });

  test('the curves are the solver’s for the same inputs', () => {
    const truth = airTruth(board, air);
    const plan = planFlown(board, air, clean, 60);
    const solved = simulateHeat(truth.board, truth.station, plan, { frames: false })!;
    const flown = flyAir(board, air, clean, 60);
    solved.parts.forEach((p, i) => {
      const apart = p.jointMinC.map((c, s) => Math.abs(c - flown.parts[i].jointMinC[s]));
      expect(Math.max(...apart)).toBeLessThanOrEqual(0.1);
    });
    expect(judgeHeat(board, plan, solved, GOALS_BY_ALLOY[board.alloy]).neighbours.length).toBeGreaterThan(0);
  });

  test('a change of the dial does not change what was before it', () => {
    const before = flyAir(board, air, flight(...WARM), 70);
    const after = flyAir(board, air, flight(...WARM, set(50, 450, 8)), 70);
    const [a, b] = [before, after].map((run) => run.parts.find((p) => p.ref === 'U4')!.jointMinC);
    expect([...b.slice(0, 51)]).toEqual([...a.slice(0, 51)]);
    expect(b[70]).toBeGreaterThan(a[70] + 1);
  });

  test('pulled cold, lifted without a nudge, never lifted, a neighbour too hot: each by its name', () => {
    expect(names(flight(...WARM, { do: 'lift', atS: 45 }))).toEqual(
      expect.arrayContaining(['pulledCold', 'liftBeforeNudge']),
    );
    expect(airExercise.review(board, air, flight(...WARM, { do: 'lift', atS: 45 }))).toMatchObject({
      score: 0,
      end: 'pulledCold',
    });
    const unasked = { ...clean, moves: clean.moves.filter((m) => m.do !== 'nudge') };
    expect(names(unasked)).toEqual(['liftBeforeNudge']);
    expect(names(flight(...WARM, set(50, null, 20)))).toEqual(['neverLifted']);
    const blasted = flight(set(0, 480, 5), { do: 'nudge', atS: 60 }, { do: 'lift', atS: 61 });
    expect(names(blasted)).toEqual(expect.arrayContaining(['neighbourTooHot', 'partCooked']));
  });

  test('a nudge that came long before says nothing of the lift', () => {
    const { moves } = clean;
    const lift = moves.at(-1)!.atS;
    const late = { ...clean, moves: [...moves.slice(0, -1), { do: 'lift' as const, atS: lift + 13 }] };
    expect(names(late)).toContain('liftBeforeNudge');
  });

  test('flux runs before it smokes, and nothing is seen of the temperature itself', () => {
    const curves = flyAir(board, air, clean, 70);
    const seen = Array.from({ length: 70 }, (_, s) => airSight(board, air, curves, s).flux);
    const order = ['quiet', 'runs', 'smokes', 'smokesThick'];
    const steps = seen.map((f) => order.indexOf(f));
    expect(steps).toEqual(steps.toSorted((a, b) => a - b));
    expect([seen[0], steps.at(-1)! >= 2]).toEqual(['quiet', true]);
  });

  test('station and board differ from seed to seed, and are the same for the same one', () => {
    const [one, again, other] = [8, 8, 9].map((seed) => airTruth(board, { seed }).station.multiplier);
    expect(again).toBe(one);
    expect(other).not.toBe(one);
  });
});

describe('eyes', () => {
  const pictures = [0, 1, 2];
  const all = pictures.map((p) => [...flawsOf(eyes, p).keys()]);

  test('whoever marks every flaw and nothing else has all', () => {
    const review = eyesExercise.review(board, eyes, { marked: all });
    expect(review.there).toBeGreaterThan(0);
    expect(review).toMatchObject({ score: 1, hits: review.there, falseAlarms: 0 });
    expect(review.byFlaw.every((f) => f.seen === f.there)).toBe(true);
  });

  test('marking nothing, or everything, is worth nothing, and tells bad from sound no better than guessing', () => {
    const nothing = eyesExercise.review(board, eyes, { marked: [] });
    const everything = eyesExercise.review(board, eyes, {
      marked: pictures.map(() => Array.from({ length: 42 }, (_, i) => i)),
    });
    for (const { score, dPrime } of [nothing, everything]) {
      expect(score).toBeCloseTo(0, 9);
      expect(Math.abs(dPrime)).toBeLessThan(1.2);
    }
    expect(nothing.lesson).toMatch(/went by\.$/);
  });

  test('the index of detection is that of published rates', () => {
    // Macmillan & Creelman, Detection Theory, table of z (from memory): z(0.84) = 0.994, z(0.16) = −0.994; z(0.69) = 0.496.
    expect(dPrimeOf({ hits: 84_000, there: 100_000, falseAlarms: 16_000, sound: 100_000 })).toBeCloseTo(1.989, 2);
    expect(dPrimeOf({ hits: 69_000, there: 100_000, falseAlarms: 31_000, sound: 100_000 })).toBeCloseTo(0.992, 2);
    expect(dPrimeOf({ hits: 5, there: 10, falseAlarms: 5, sound: 10 })).toBe(0);
  });

  test('a picture says nothing of what is wrong with it, and is the same for the same seed', () => {
    const [one, again] = [eyesPicture(eyes, 1), eyesPicture(eyes, 1)];
    expect(Object.keys(one).sort()).toEqual(['pattern', 'picture', 'toPicture']);
    expect(again.picture.grey).toEqual(one.picture.grey);
    expect(eyesPicture(eyes, 2).picture.grey).not.toEqual(one.picture.grey);
  });
});

describe('lines', () => {
  const questions = Array.from({ length: lines.questions }, (_, q) => linesQuestion(board, lines, q));
  const truths = linesExercise.review(board, lines, { answers: [] }).rows.map((r) => r.truth);

  test('the truth is among four different answers, and not always at the same place', () => {
    questions.forEach(({ choices }, q) => {
      expect(new Set(choices).size).toBe(4);
      expect(choices).toContain(truths[q]);
    });
    expect(new Set(questions.map(({ choices }, q) => choices.indexOf(truths[q]))).size).toBeGreaterThan(1);
    expect(new Set(truths).size).toBeGreaterThan(2);
  });

  test('all right is one, guessing is nothing, and what was missed says where to look', () => {
    expect(linesExercise.review(board, lines, { answers: truths })).toMatchObject({ score: 1 });
    const wrong = questions.map(({ choices }, q) => choices.find((c) => c !== truths[q])!);
    const review = linesExercise.review(board, lines, { answers: wrong });
    expect(review.score).toBe(0);
    expect(review.lesson.length).toBeGreaterThan(10);
  });

  test('a conversation shows its acknowledgements: by them one tells a dead device from a silent program', () => {
    const unasked = truths.indexOf('offersNotAsked');
    const unanswered = truths.indexOf('offersUnanswered');
    const acks = (q: number): number => questions[q].lines.filter((l) => l.who === 'device').length;
    if (unasked !== -1) expect(acks(unasked)).toBeGreaterThan(0);
    if (unanswered !== -1) expect(acks(unanswered)).toBe(0);
    expect(Math.max(unasked, unanswered)).toBeGreaterThanOrEqual(0);
  });
});

test('every kind has a course whose files are read back, and refuses what was not done in it', () => {
  for (const kind of EXERCISE_NAMES) {
    const course = exerciseCourse(kind, [board, demoBoard('marshdesk-2-b')]);
    expect(course.length).toBeGreaterThan(1);
    for (const spec of course) {
      expect(exerciseSchema.parse(JSON.parse(JSON.stringify(spec)))).toEqual(spec);
      expect(reviewExercise(board, spec, { what: 'nothing' }).ok).toBe(false);
    }
  }
});
