import { demoBoard } from '../../../demo/files';
import { DiagnoseSession, Predictor, sampleReading, type Measurement } from '../diagnose';
import { seededRandom } from '../math';
import {
  courseOn,
  drawDrill,
  DrillPlay,
  drillSchema,
  followed,
  MISTAKE_WORDS,
  parOf,
  readDrillLine,
  replay,
  scoreOf,
  type Drill,
  type DrillStep,
  type Mistake,
} from '.';

const heron = demoBoard('heronlog-4-c');
const predictor = Predictor.of(heron);
const drill = (over: Partial<Drill> = {}): Drill =>
  drillSchema.parse({ format: 1, name: 'a drill', boardId: heron.id, seed: 4102, faults: 1, grade: 1, ...over });
const measure = (measurement: Measurement): DrillStep => ({ do: 'measure', measurement });
const look: DrillStep = measure({ kind: 'visualInspection', ref: 'J1' });
const usb = measure({ kind: 'usbMeter', port: 'J1', side: 'A' });

describe('what is drawn', () => {
  test('the same drill is always the same, another seed another one', () => {
    const ids = (seed: number): string =>
      drawDrill(predictor, drill({ seed }))
        .faults.map((f) => f.id)
        .join();
    expect(ids(7)).toBe(ids(7));
    expect(new Set([1, 2, 3, 4, 5, 6, 7, 8].map(ids)).size).toBeGreaterThan(4);
  });

  test('as many faults as asked, on different parts; a misleading story tells something of its own', () => {
    for (const faults of [1, 2, 3] as const) {
      const drawn = drawDrill(predictor, drill({ faults, seed: 11 }));
      expect(new Set(drawn.faults.map((f) => f.ref)).size).toBe(faults);
    }
    const honest = drawDrill(predictor, drill({ seed: 5 }));
    const misleading = drawDrill(predictor, drill({ seed: 5, misleading: true }));
    expect(honest.history).toEqual([]);
    expect(misleading.story.startsWith(honest.story)).toBe(true);
    expect(misleading.history).toHaveLength(1);
  });

  test('ten graded drills on whatever boards there are; none where there are none', () => {
    const course = courseOn([heron, demoBoard('marshdesk-2-b')]);
    expect(course.map((d) => d.grade)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10]);
    expect(course.every((d) => drillSchema.safeParse(d).success)).toBe(true);
    expect(courseOn([])).toEqual([]);
  });
});

describe('how it is played', () => {
  test.each([4102, 21, 22, 23, 24, 25])(
    'who follows every proposal has no regret and makes no mistake (seed %i)',
    (seed) => {
      const play = parOf(predictor, drill({ seed }));
      expect(play.reviews.map((r) => r.regretMinutes).filter((r) => r !== 0)).toEqual([]);
      expect(scoreOf(play, play.minutes)).toMatchObject({
        regretMinutes: 0,
        mistakes: [],
        score: play.isSolved ? 1 : 0,
      });
    },
  );

  test('played again from its steps it is the same to the last figure', () => {
    const steps: DrillStep[] = [];
    const play = new DrillPlay(predictor, drill());
    while (!play.end && steps.length < 40) {
      const step = followed(play.proposal());
      steps.push(step);
      play.take(step);
    }
    const again = replay(predictor, drill(), steps);
    expect(again.reviews).toEqual(play.reviews);
    expect([again.minutes, again.end]).toEqual([play.minutes, play.end]);
  });

  test('the regret of a test is what the planner itself expects of both', () => {
    const play = new DrillPlay(predictor, drill());
    play.take(look);
    const best = play.proposal();
    const other: Measurement = { kind: 'groundResistance', net: heron.rails[2].net };
    // The same moment, asked of a session of its own.
    const session = new DiagnoseSession(predictor);
    session.note({ story: { history: [...play.drawn.history] } });
    session.note({ reading: { measurement: { kind: 'visualInspection', ref: 'J1' }, value: lookOf(play) } });
    const asked = session.take({ why: other });
    if (!asked.ok || best.kind !== 'test') throw new Error('expected a test');
    const review = play.take(measure(other));
    if (!review.ok) throw new Error(review.problems[0].message);
    expect(review.value.ownMinutes).toBeCloseTo(asked.value.why!.expectedMinutes, 9);
    expect(review.value.bestMinutes).toBeCloseTo(best.expectedMinutes!, 9);
    expect(review.value.regretMinutes).toBeCloseTo(
      Math.max(0, asked.value.why!.expectedMinutes - best.expectedMinutes!),
      9,
    );
  });

  /** What the look gave, read back from its words: pass, since the fault of this drill is not at the port. */
  const lookOf = (play: DrillPlay) => {
    expect(play.drawn.faults[0].ref).not.toBe('J1');
    expect(play.reviews[0].answer).toBe('good');
    return { kind: 'pass' } as const;
  };

  test('work on what is at fault cures, other work does not; a hint costs minutes; after the end nothing is taken', () => {
    const play = new DrillPlay(predictor, drill());
    const [fault] = play.drawn.faults;
    const wrong = heron.parts.find((p) => p.kind === 'capacitor' && p.ref !== fault.ref)!.ref;
    const before = play.minutes;
    expect(play.take({ do: 'hint' }).ok).toBe(true);
    expect(play.minutes).toBe(before + 6);
    expect(play.take({ do: 'work', work: { kind: 'part', ref: wrong } })).toMatchObject({
      value: { answer: 'The complaint is still there.', mistake: 'workOnGuess' },
    });
    if (fault.mendedBy.kind !== 'part') throw new Error('expected a part');
    expect(play.take({ do: 'work', work: fault.mendedBy })).toMatchObject({
      value: { answer: 'The proof holds: cured.' },
    });
    expect([play.end, play.isSolved]).toEqual(['cured', true]);
    expect(play.take(look)).toMatchObject({ ok: false });
    const worst = play.reviews.toSorted((a, b) => b.regretMinutes - a.regretMinutes)[0];
    expect(worst.regretMinutes).toBeGreaterThan(0);
    expect(scoreOf(play, 20).lesson).toContain(`${worst.words} cost ${worst.regretMinutes.toFixed(0)} minutes`);
  });

  test('a fault that no list holds is rightly sent on; a listed one is not', () => {
    const unlisted = new DrillPlay(predictor, drill({ faults: 'unlisted', seed: 3 }));
    unlisted.take({ do: 'sendOn' });
    expect([unlisted.end, unlisted.isSolved, unlisted.reviews[0].mistake]).toEqual(['sentOn', true, undefined]);
    const listed = new DrillPlay(predictor, drill());
    listed.take({ do: 'sendOn' });
    expect([listed.end, scoreOf(listed, 30).score]).toEqual(['wronglySentOn', 0]);
    expect(scoreOf(listed, 30).mistakes.map((m) => m.name)).toEqual(['sentOnTooEarly']);
  });
});

describe('mistakes of the trade', () => {
  const play = (...steps: DrillStep[]): (Mistake | undefined)[] =>
    replay(predictor, drill(), steps).reviews.map((r) => r.mistake);
  const rail = heron.rails.find((r) => r.id === 'AON33')!;

  test('power before the look, and none after it', () => {
    expect(play(usb)).toEqual(['powerBeforeLook']);
    expect(play(look, usb)[0]).toBeUndefined();
  });
  test('a voltage before the short of its rail was excluded', () => {
    expect(play(look, measure({ kind: 'railVoltage', rail: rail.id }))[1]).toBe('voltsBeforeShort');
  });
  test('an image written over one that nobody had read, and none once it was', () => {
    const write: DrillStep = { do: 'work', work: { kind: 'image', ref: 'U9' } };
    expect(play(look, write)[1]).toBe('imageUnread');
    expect(play(look, measure({ kind: 'imageCheck', ref: 'U9' }), write)[2]).not.toBe('imageUnread');
  });
  test('the same reading twice without a reason', () => {
    const ohm = measure({ kind: 'groundResistance', net: rail.net });
    expect(play(look, ohm, ohm)[2]).toBe('takenTwice');
  });
  test('each has its words', () => {
    expect(Object.values(MISTAKE_WORDS).every((w) => w.length > 10)).toBe(true);
  });
});

describe('lines', () => {
  test.each([
    ['usb a', usb],
    ['look j1', look],
    ['TP7  ohm', undefined],
    ['replace u4', { do: 'work', work: { kind: 'part', ref: 'U4' } }],
    ['rewrite u9', { do: 'work', work: { kind: 'image', ref: 'U9' } }],
    ['swap charger', { do: 'work', work: { kind: 'outside', what: 'charger' } }],
    ['send on', { do: 'sendOn' }],
    ['hint', { do: 'hint' }],
  ] as const)('%s', (text, step) => {
    const read = readDrillLine(heron, text);
    expect(read.ok).toBe(true);
    if (step && read.ok) expect(read.value).toEqual(step);
  });
  test.each([
    ['replace u99', 'Expected a part of this board; got “u99”.'],
    ['swap dog', 'Expected charger, cable, pack; got “dog”.'],
    ['wire nowhere', 'Expected a rail of this board; got “nowhere”.'],
    ['what', 'Expected a reading without its value'],
    ['tp7 ohm 4', 'Expected a reading without its value'],
  ])('%s is refused in words', (text, words) => {
    expect(readDrillLine(heron, text)).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining(words) }],
    });
  });
});

test('readings are those of the hidden board: over many drills a sound point reads as the predictor draws it', () => {
  const point: Measurement = { kind: 'railVoltage', rail: 'VBUS' };
  const [fault] = new DrillPlay(predictor, drill({ seed: 4102 })).drawn.faults;
  const direct: number[] = [];
  const drawn = Array.from({ length: 60 }, (_, seed) => {
    const { value } = sampleReading(predictor, point, fault, seededRandom(seed));
    if (value.kind === 'figure') direct.push(value.value);
    const play = new DrillPlay(predictor, drill({ seed, hidden: [fault.id] }), false);
    play.take(look);
    play.take(measure(point));
    return Number.parseFloat(play.reviews[1].answer);
  });
  expect(new Set(drawn).size).toBeGreaterThan(10);
  const middle = (list: number[]): number => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)];
  expect(Math.abs(middle(drawn) - middle(direct))).toBeLessThan(0.06 * Math.max(1, middle(direct)));
});
