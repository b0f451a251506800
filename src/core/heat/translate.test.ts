import { demoBoard, demoStations } from '../../../demo/files';
import { seededRandom } from '../math';
import { foreignPlan, parseForeign, type ForeignSettings } from './foreign';
import { startingPlan } from './plan';
import { NOMINAL_STATION, type Station } from './station';
import { guessed, translatePlan } from './translate';

const heron = demoBoard('heronlog-4-c');
const like = startingPlan('U4', 'SAC305', 6);
const read = (text: string): ForeignSettings => {
  const parsed = parseForeign(text);
  if (!parsed.ok) throw new Error(parsed.problems[0].message);
  return parsed.value;
};

describe('somebody else’s words', () => {
  test.each([
    ['350 at 80 %, 8 mm, 60 s', { setC: 350, flow: { share: 0.8 }, heightMm: 8, durationS: 60 }],
    ['8mm 60s 80% 350°C', { setC: 350, flow: { share: 0.8 }, heightMm: 8, durationS: 60 }],
    ['air 420 c, 40 l/min, 1.5 min', { setC: 420, flow: { lpm: 40 }, heightMm: 10, durationS: 90 }],
    ['380, nozzle 6 mm, 12 mm, 45 s', { setC: 380, nozzleMm: 6, heightMm: 12, durationS: 45 }],
    ['360 with a 10 mm nozzle at 30 l', { setC: 360, nozzleMm: 10, flow: { lpm: 30 } }],
  ])('%s', (text, settings) => {
    expect(read(text)).toMatchObject(settings);
  });

  test('what was not said is told', () => {
    expect(read('400').assumed).toEqual(['60 % flow', '10 mm', '60 s', 'the same nozzle']);
    expect(read('350 at 80 %, 8 mm, 60 s').assumed).toEqual(['the same nozzle']);
  });

  test.each([
    ['hot, but not too hot', 'Expected settings such as "350 at 80 %, 8 mm, 60 s"; got "hot, but not too hot".'],
    ['80 % 60 s', 'Expected settings such as "350 at 80 %, 8 mm, 60 s"; got "80 % 60 s".'],
    ['850 at 80 %', 'Expected a dial from 100 to 500 °C; got 850.'],
    ['350 at 180 %', 'Expected a flow up to 100 %; got 180 %.'],
    ['350, 120 mm', 'Expected a height from 2 to 80 mm; got 120.'],
    ['350, 2 s', 'Expected 5 to 600 s; got 2.'],
  ])('%s is explained', (text, problem) => {
    expect(parseForeign(text)).toMatchObject({ ok: false, problems: [{ message: problem }] });
  });
});

test('a share of the flow is one of their own dial', () => {
  const [bench1, bench2] = demoStations();
  expect(foreignPlan(read('350 at 50 %'), bench1, like).steps[0].flowLpm).toBe(36);
  expect(foreignPlan(read('350 at 50 %'), bench2, like).steps[0].flowLpm).toBe(18);
});

test('a station’s own settings translate into themselves', () => {
  const plan = foreignPlan(read('350, 30 l, 10 mm, 30 s'), NOMINAL_STATION, like);
  const { plan: same, rmsK, limits } = translatePlan(heron, NOMINAL_STATION, NOMINAL_STATION, plan);
  expect([same.steps[0].airSetC, limits]).toEqual([350, []]);
  expect(rmsK).toBeLessThan(0.1);
});

test('between random known stations the joints follow within 5 K rms @long', () => {
  const random = seededRandom(17);
  const between = (low: number, high: number): number => low + (high - low) * random();
  const station = (): Station => ({
    ...NOMINAL_STATION,
    outletEfficiency: between(0.78, 0.95),
    multiplier: between(0.6, 0.9),
    spreadDiameters: between(3, 4),
    outletLagS: between(4, 10),
  });
  let free = 0;
  for (let k = 0; k < 8; k++) {
    const [theirs, ours] = [station(), station()];
    const settings = { ...read('350'), setC: between(300, 390), flow: { lpm: between(20, 45) }, durationS: 60 };
    const { rmsK, limits } = translatePlan(heron, theirs, ours, foreignPlan(settings, theirs, like));
    // What a dial's end forbids is told, and is no failure of the translation.
    if (limits.length > 0) continue;
    expect(rmsK).toBeLessThan(5);
    free += 1;
  }
  expect(free).toBeGreaterThanOrEqual(6);
}, 120_000);

test('the doubt is that of both stations, and grows when theirs is guessed', () => {
  const plan = foreignPlan(read('350, 30 l, 10 mm, 60 s'), NOMINAL_STATION, like);
  const [ours] = demoStations();
  const known = translatePlan(heron, { ...NOMINAL_STATION, doubt: 0.05 }, ours, plan);
  const unknown = translatePlan(heron, guessed(NOMINAL_STATION), ours, plan);
  expect(unknown.doubtK).toBeGreaterThan(1.5 * known.doubtK);
  expect(unknown.plan).toEqual(known.plan);
  const nothingOpen = { covariance: Array.from({ length: 6 }, () => new Array<number>(6).fill(0)) };
  const sure = translatePlan(heron, { ...NOMINAL_STATION, known: nothingOpen }, { ...ours, known: nothingOpen }, plan);
  // What is left is the shape of the film under the nozzle.
  expect(sure.doubtK).toBeLessThan(0.6 * known.doubtK);
}, 60_000);

test('what this station cannot do is said', () => {
  const weak: Station = { ...NOMINAL_STATION, setC: [100, 330], flowLpm: [6, 20], nozzlesMm: [4] };
  const { limits } = translatePlan(
    heron,
    NOMINAL_STATION,
    weak,
    foreignPlan(read('400, 45 l, 8 mm, 60 s'), NOMINAL_STATION, like),
  );
  expect(limits).toEqual([
    'no nozzle of 6 mm: 4 mm is nearest',
    'no flow of 45 l/min: 20 is nearest',
    'the dial ends at 330 °C',
  ]);
});
