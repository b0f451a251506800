import { DEFAULT_BLOW, fitStation } from '../../core/calibration';
import { NOMINAL_STATION } from '../../core/heat';
import { seededRandom } from '../../core/math';
import { SimulatedLogger, SimulatedStation, twinOf, type LoggerSample } from '.';

jest.useFakeTimers();
const noise = (): ReturnType<typeof seededRandom> => seededRandom(4);

test('the twin of a station keeps its hidden parameters: two logs of it differ by noise only', () => {
  const [a, b] = [seededRandom(1), seededRandom(2)].map(
    (random) => twinOf(NOMINAL_STATION, random).log(DEFAULT_BLOW, 40, ['slug'])[0].readC,
  );
  expect(a).not.toEqual(b);
  a.forEach((t, i) => expect(Math.abs(t - b[i])).toBeLessThan(7));
  const other = twinOf({ ...NOMINAL_STATION, id: 'another' }, seededRandom(1)).log(DEFAULT_BLOW, 40, ['slug'])[0].readC;
  expect(Math.abs(other[40] - a[40])).toBeGreaterThan(5);
});

test('a hotter set point melts sooner; an alloy that is too high never does', () => {
  const station = new SimulatedStation(NOMINAL_STATION, SimulatedStation.drawTruth(seededRandom(9)), noise());
  const at = (setC: number): number => station.melt({ ...DEFAULT_BLOW, setC }, 138)!;
  expect(at(450)).toBeLessThan(at(300));
  expect(station.melt({ ...DEFAULT_BLOW, setC: 120 }, 217)).toBeNull();
  expect(station.threshold(DEFAULT_BLOW, 138) % 5).toBe(0);
});

test('the logger gives a row a second until it is stopped, and what it gives calibrates its station', () => {
  const logger = new SimulatedLogger(twinOf(NOMINAL_STATION, noise()), DEFAULT_BLOW, 60, 10);
  const got: LoggerSample[] = [];
  logger.start((s) => got.push(s));
  jest.advanceTimersByTime(2000);
  expect(got.map((s) => s.timeS)).toEqual(Array.from({ length: 20 }, (_, i) => i));
  jest.advanceTimersByTime(60_000);
  expect(got).toHaveLength(61);
  const probes = logger.places.map((place, i) => ({ place, readC: got.map((s) => s.readC[i]) }));
  expect(fitStation(NOMINAL_STATION, [{ kind: 'log', ...DEFAULT_BLOW, probes }]).ok).toBe(true);
});

test('stopping ends the rows, starting again begins anew', () => {
  const logger = new SimulatedLogger(twinOf(NOMINAL_STATION, noise()), DEFAULT_BLOW, 60, 1);
  const got: LoggerSample[] = [];
  logger.start((s) => got.push(s));
  jest.advanceTimersByTime(3000);
  logger.stop();
  jest.advanceTimersByTime(5000);
  expect(got).toHaveLength(3);
  logger.start((s) => got.push(s));
  jest.advanceTimersByTime(1000);
  logger.stop();
  expect(got[3].timeS).toBe(0);
});
