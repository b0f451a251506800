/** Quotes, durations and promises against closed forms and drawn truth. */
import { demoBoard } from '../../../demo/files';
import { demoJobs } from '../../../demo/jobs';
import { viewJob, type JobEvent } from '../job';
import { normalDraw, seededRandom } from '../math';
import {
  dayProblemSchema,
  jobEnds,
  learnedDuration,
  learnedDurations,
  planDay,
  promisesSeen,
  quoteOf,
  quoteOfJob,
  stageMinutes,
  stepsAhead,
  stretchOf,
  DEFAULT_BUSINESS,
  priceRule,
} from '.';

const RULE = { hourPrice: 60, diagnosisFee: 20, noCureNoFee: true, tax: 0 };
const SURE = { searchMinutes: 10, proofMinutes: 5, sdLog: 0, comebackChance: 0 };

test('without doubt a quote is arithmetic: fee, hours and parts, with tax', () => {
  const quote = quoteOf(
    { ...SURE, ways: [{ label: 'U4', chance: 1, minutes: 30, parts: 8 }], worth: 300 },
    { ...RULE, tax: 0.2 },
  );
  expect(quote.successChance).toBe(1);
  expect(quote.minutes).toMatchObject({ low: 45, high: 45 });
  // (20 + 45 min at 60 an hour + 8) with a fifth on top.
  expect(quote.price.mean).toBeCloseTo(1.2 * (20 + 45 + 8), 6);
  expect(quote.marginMean).toBeCloseTo(20, 6);
  expect(quote.breakEvenChance).toBeCloseTo((1.2 * 73) / 300, 6);
});

test('ways are tried in their order until it was it: chances and means of the tree, by hand', () => {
  const ways = [
    { label: 'a', chance: 0.5, minutes: 20, parts: 10 },
    { label: 'b', chance: 0.3, minutes: 40, parts: 30 },
  ];
  const quote = quoteOf({ ...SURE, ways }, RULE);
  expect(quote.successChance).toBeCloseTo(0.8, 1);
  const [one, both] = [10 + 25, 10 + 25 + 45];
  expect(quote.minutes.mean).toBeCloseTo(0.5 * one + 0.5 * both, -0.5);
  // No cure, no fee: then the look alone is paid.
  expect(quote.price.low).toBe(20);
  expect(quote.priceCured.low).toBe(20 + one + 10);
  expect(quote.priceCured.high).toBe(20 + both + 40);
});

test('eight of ten drawn jobs lie in the range that is told, and the chance of success is what comes out', () => {
  const random = seededRandom(12);
  const ways = [0.5, 0.2, 0.15].map((chance, i) => ({ label: String(i), chance, minutes: 15 + 20 * i, parts: 5 * i }));
  const told = quoteOf({ ...SURE, sdLog: 0.45, ways }, RULE);
  let [inside, cured] = [0, 0];
  const N = 2000;
  for (let k = 0; k < N; k++) {
    const u = random();
    const at = u < 0.5 ? 0 : u < 0.7 ? 1 : u < 0.85 ? 2 : 3;
    const minutes =
      (10 + ways.slice(0, Math.min(3, at + 1)).reduce((s, w) => s + w.minutes + 5, 0)) *
      Math.exp(0.45 * normalDraw(random) - 0.45 ** 2 / 2);
    inside += Number(minutes >= told.minutes.low && minutes <= told.minutes.high);
    cured += Number(at < 3);
  }
  expect(Math.abs(inside / N - 0.8)).toBeLessThan(0.04);
  expect(Math.abs(cured / N - told.successChance)).toBeLessThan(0.03);
});

test('a duration is its prior before anything was seen, and the truth after many jobs', () => {
  const prior = { minutes: 25, sdLog: 0.7 };
  expect(learnedDuration(prior, []).minutes).toBeCloseTo(25, 6);
  const random = seededRandom(4);
  const truth = Array.from({ length: 400 }, () => 60 * Math.exp(0.3 * normalDraw(random) - 0.3 ** 2 / 2));
  const learned = learnedDuration(prior, truth);
  expect(learned.minutes).toBeGreaterThan(57);
  expect(learned.minutes).toBeLessThan(63);
  expect(learned.sdLog).toBeCloseTo(0.3, 1);
  const two = learnedDuration(prior, truth.slice(0, 2)).minutes;
  expect(two).toBeGreaterThan(25);
  expect(two).toBeLessThan(60);
});

test('what is promised for eight of ten days is kept in eight of ten drawn otherwise', () => {
  const day = dayProblemSchema.parse({
    jobs: Array.from({ length: 5 }, (_, j) => ({
      id: `j${j}`,
      steps: [
        { id: 'a', minutes: 20 },
        { id: 'b', minutes: 30, chance: 0.6 },
      ],
    })),
    people: [{ id: 'a', role: 'lead' }],
  });
  const plan = planDay(day);
  const random = seededRandom(99);
  const ends = jobEnds(day, plan);
  const kept = ends.map(() => 0);
  const N = 1500;
  for (let k = 0; k < N; k++) {
    let clock = 0;
    for (const id of [...new Set(plan.order)]) {
      clock += 20 * Math.exp(0.4 * normalDraw(random) - 0.08);
      if (random() < 0.6) clock += 30 * Math.exp(0.4 * normalDraw(random) - 0.08);
      const i = ends.findIndex((e) => e.job === id);
      kept[i] += Number(clock <= ends[i].byMin);
    }
  }
  for (const k of kept) expect(Math.abs(k / N - 0.8)).toBeLessThan(0.09);
});

test('earlier promises stretch later ones until they are kept as often as they say, whatever the law', () => {
  const random = seededRandom(31);
  // Half as long again on average, and skewed: nothing that a plan knows.
  const ratio = (): number => 0.75 * (-Math.log(1 - random()) - Math.log(1 - random()));
  expect(stretchOf(Array.from({ length: 9 }, () => ({ plannedMin: 60, tookMin: 300 })))).toBe(1);
  let kept = 0;
  const seen = Array.from({ length: 60 }, () => ({ plannedMin: 60, tookMin: 60 * ratio() }));
  for (let k = 0; k < 2000; k++) {
    const plannedMin = 30 + 90 * random();
    const tookMin = plannedMin * ratio();
    kept += Number(tookMin <= plannedMin * stretchOf(seen, 0.8));
    seen.push({ plannedMin, tookMin });
  }
  expect(kept / 2000).toBeGreaterThan(0.77);
  expect(kept / 2000).toBeLessThan(0.83);
});

test('a closed job tells what became of its last promise; one without tells nothing', () => {
  const at = (min: number): string => new Date(Date.UTC(2026, 10, 20, 9, min)).toISOString();
  const event = (seq: number, min: number, body: JobEvent['body']): JobEvent => ({
    seq,
    at: at(min),
    bench: 'Bench 1',
    actor: 'Mira',
    body,
  });
  const close = event(9, 300, { kind: 'close', outcome: 'stopped', cause: '', reason: 'no part' });
  const told = [
    event(1, 0, { kind: 'promise', byAt: at(100) }),
    event(2, 60, { kind: 'promise', byAt: at(180) }),
    close,
  ];
  expect(promisesSeen([told, [close], [told[0]]])).toEqual([{ plannedMin: 120, tookMin: 240 }]);
});

describe('a job of the demo world', () => {
  const events = (number: number): JobEvent[] =>
    demoJobs()
      .find((j) => j.number === number)!
      .events.map((body, i) => ({
        seq: i + 1,
        at: new Date(Date.UTC(2026, 10, 20, 9, 5 * i)).toISOString(),
        bench: 'Bench 1',
        actor: 'Mira',
        body,
      }));
  const job = viewJob(32, '2026-11-20T09:00:00.000Z', demoBoard('heronlog-4-c'), events(32));
  const durations = learnedDurations([]);

  test('its steps begin with what is next, need what they occupy, and end with the closing', () => {
    const steps = stepsAhead(job, durations);
    expect(steps[0].words).toBe(job.next.title);
    expect(steps.at(-1)!.id).toBe('close');
    expect(steps.find((s) => s.id === 'heat')).toMatchObject({ needs: ['hot air'], chance: 1 });
    expect(steps.filter((s) => s.passive).map((s) => s.id)).toEqual(['cool', 'soak']);
  });

  test('it is quoted: a chance and a range, dearer with a dearer hour', () => {
    const quote = quoteOfJob(job, durations, priceRule(DEFAULT_BUSINESS));
    expect(quote.successChance).toBeGreaterThan(0.5);
    expect(quote.priceCured.low).toBeLessThan(quote.priceCured.high);
    expect(quoteOfJob(job, durations, { ...priceRule(DEFAULT_BUSINESS), hourPrice: 120 }).price.mean).toBeGreaterThan(
      quote.price.mean,
    );
  });

  test('minutes of its stages are the gaps before their entries; a long gap is a pause', () => {
    const reading = events(32).find((e) => e.body.kind === 'reading')!;
    const at = (min: number): JobEvent => ({ ...reading, at: new Date(Date.UTC(2026, 10, 20, 9, min)).toISOString() });
    const sum = Object.values(stageMinutes([at(0), at(6), at(10), at(180)])).reduce((a, b) => a + b, 0);
    expect(sum).toBe(10);
  });
});
