/** Stations, goals and marks as the interface keeps them: computed again on the server, refused in a sentence. */
import { demoBench } from '../tests/demo-bench';
import { cardOf } from '../heat/card';
import { keepGoals, keepLogged, keepMark } from '../heat/actions';
import { loadGoals, loadStations } from '../heat/queries';
import { openedBy } from '../heat/view';
import { loadJob } from '../job/queries';
import { DEFAULT_BLOW, type Trial } from '@/core/calibration';
import { NOMINAL_STATION, aimPlan, planLink, simulateHeat, startingPlan, withMultiplier } from '@/core/heat';
import { seededRandom } from '@/core/math';
import { twinOf } from '@/devices/station';
import { keepCalibration, keepStation } from './actions';
import { loadAllStations, loadStation } from './queries';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));

let remove: () => void;
beforeEach(async () => ({ remove } = await demoBench()));
afterEach(() => remove());

let n = 0;
const key = (): string => `stations-test-${n++}`;
const station = async (id: string) => (await loadStation(id))!.station;

async function logOf(id: string): Promise<Trial> {
  const probes = twinOf(await station(id), seededRandom(3)).log(DEFAULT_BLOW, 60, ['slug', 'far']);
  return { kind: 'log', ...DEFAULT_BLOW, probes };
}

test('a log is fitted again on the server, becomes the station’s figures, and two of them show the drift', async () => {
  const log = await logOf('bench-1');
  const answer = await keepCalibration('bench-1', [log], key());
  expect(answer).toMatchObject({ saved: true, message: expect.stringMatching(/^Taken over: ε 0\.\d\d, m 0\.\d\d/) });
  const now = (await loadStation('bench-1'))!;
  expect(now.history).toHaveLength(1);
  expect(now.station.multiplier).toBeCloseTo(now.history[0].calibration.multiplier.value, 3);
  expect(now.station.multiplierByFlow).toEqual([{ flowLpm: 30, multiplier: now.station.multiplier }]);
  expect((await loadAllStations()).stations.map((s) => s.history.length)).toEqual([1, 0]);
});

test.each<[string, string, () => unknown, RegExp]>([
  ['no trials', 'bench-1', () => [], /^Expected trials of the coupon/],
  [
    'a station that is not here',
    'bench-9',
    () => [{ kind: 'threshold', ...DEFAULT_BLOW, alloyC: 183 }],
    /no "bench-9"/,
  ],
  [
    'one trial that cannot tell',
    'bench-1',
    () => [{ kind: 'melt', ...DEFAULT_BLOW, alloyC: 183, seconds: 30 }],
    /^Expected trials that tell a hot outlet from a strong jet/,
  ],
  [
    'trials at two flows',
    'bench-1',
    () => [20, 40].map((flowLpm) => ({ kind: 'melt', ...DEFAULT_BLOW, flowLpm, alloyC: 183, seconds: 30 })),
    /^Expected trials at one flow; got 20 and 40 l\/min/,
  ],
])('%s: a sentence, and the station stays as it was', async (_, id, trials, words) => {
  const before = await loadAllStations();
  const answer = await keepCalibration(id, trials(), key());
  expect(answer.saved).toBe(false);
  expect(answer.message).toMatch(words);
  expect(await loadAllStations()).toEqual(before);
});

test('a new station is kept as given; ranges the wrong way round and nonsense are refused', async () => {
  const fresh = { ...NOMINAL_STATION, id: 'bench-3', name: 'Bench 3' };
  expect(await keepStation({ ...fresh, setC: [450, 100] })).toMatchObject({
    saved: false,
    message: 'Expected ranges from low to high; got 450 to 100 °C and 10 to 60 l/min.',
  });
  expect((await keepStation({ ...fresh, nozzlesMm: [] })).message).toMatch(/^Expected a station .*nozzlesMm/);
  expect((await loadAllStations()).stations.map((s) => s.station.id)).not.toContain('bench-3');
  expect(await keepStation(fresh)).toEqual({ saved: true, message: 'Kept: Bench 3.' });
  expect(await station('bench-3')).toEqual(fresh);
});

test('goals are kept alloy by alloy and judge the card; nonsense changes nothing', async () => {
  const before = await loadGoals();
  expect((await keepGoals('SAC305', { ...before.SAC305, plasticLimitC: 1000 })).message).toBe(
    'Expected 80 to 300 °C for plastic bodies; got 1000.',
  );
  expect((await keepGoals('lead', before.SAC305)).message).toMatch(/^Expected one of SAC305/);
  expect(await loadGoals()).toEqual(before);
  expect((await keepGoals('SAC305', { ...before.SAC305, neighbourUnderSolidusK: 30 })).saved).toBe(true);
  const goals = await loadGoals();
  expect(goals.Sn63Pb37).toEqual(before.Sn63Pb37);
  const job = (await loadJob(30))!;
  const kept = [27, 28, 29, 30, 31, 34].map((number) => loadJob(number));
  const planned = (await Promise.all(kept)).find((j) => j?.state.heatPlan)!;
  const card = cardOf(planned, await loadStations(), goals)!;
  expect(card.verdict.neighbours.some((w) => w.limitC === 187)).toBe(true);
  expect(cardOf(planned, [], goals)).toBeUndefined();
  expect(job.number).toBe(30);
});

test('a mark of a real run is computed again on the server and moves the station; a torn plan does not', async () => {
  const job = (await loadJob(32))!;
  const before = await station('bench-1');
  const { plan } = aimPlan(job.board, before, startingPlan('U4', 'SAC305', 4));
  expect((await keepMark(32, 'bench-1', { ...plan, steps: [] }, 60)).message).toMatch(/^Expected the heat plan/);
  expect((await keepMark(999, 'bench-1', plan, 60)).message).toMatch(/^Expected a job and a station/);
  expect(await station('bench-1')).toEqual(before);
  const answer = await keepMark(32, 'bench-1', plan, 70);
  expect(answer.saved).toBe(true);
  const after = await station('bench-1');
  expect(after.multiplier).toBeLessThan(before.multiplier);
  expect(after.doubt).toBeLessThan(before.doubt);
});

test('a logged run is fitted again on the server; torn logs and plans move nothing', async () => {
  const job = (await loadJob(32))!;
  const before = await station('bench-1');
  const { plan } = aimPlan(job.board, before, startingPlan('U4', 'SAC305', 4));
  const truth = withMultiplier(before, 1.15 * before.multiplier);
  const run = simulateHeat(job.board, truth, plan, { frames: false })!;
  const curve = {
    ref: 'U4',
    timesS: [...run.timesS],
    readC: [...run.parts.find((p) => p.ref === 'U4')!.jointMeanC],
  };
  const torn = await keepLogged(32, 'bench-1', plan, { ...curve, readC: curve.readC.slice(3) }, key());
  expect(torn).toMatchObject({
    saved: false,
    message: 'Expected the times and readings of a log, at most 36000 of each.',
  });
  expect((await keepLogged(32, 'bench-1', {}, curve, key())).message).toBe('Expected the heat plan that was run.');
  expect((await keepLogged(32, 'bench-1', plan, { ...curve, ref: 'U99' }, key())).message).toMatch(/got "U99"/);
  expect(await station('bench-1')).toEqual(before);
  const same = key();
  expect((await keepLogged(32, 'bench-1', plan, curve, same)).saved).toBe(true);
  const after = await station('bench-1');
  expect(after.multiplier).toBeGreaterThan(before.multiplier);
  // The same log sent twice counts once.
  await keepLogged(32, 'bench-1', plan, curve, same);
  expect((await loadStation('bench-1'))!.history).toHaveLength(1);
  expect(await station('bench-1')).toEqual(after);
});

test('an address opens its plan and station; a torn one says so', () => {
  const plan = startingPlan('U4', 'SAC305', 4);
  const query = Object.fromEntries(new URLSearchParams(planLink(plan, 'bench-2')));
  expect(openedBy(query)).toEqual({ plan, stationId: 'bench-2', problem: undefined });
  expect(openedBy({ plan: '{' }).problem).toMatch(/^Expected a heat plan in the address/);
  expect(openedBy({})).toEqual({ plan: undefined, stationId: undefined, problem: undefined });
});
