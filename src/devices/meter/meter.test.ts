import { demoBoard } from '../../../demo/files';
import { CHARGERS, concludeOutside, expectDraw, nameSegments, type Pattern } from '../../core/trace';
import { SCENES, SimulatedMeter, type MeterSample, type Scene } from '.';

jest.useFakeTimers();
const [port] = demoBoard('heronlog-4-c').ports;
const expected = expectDraw(port, CHARGERS[CHARGERS.length - 1], 'partly');

function play(scene: Scene, seconds: number, speed: number): MeterSample[] {
  const meter = new SimulatedMeter(scene, port.designV, 3, speed);
  const got: MeterSample[] = [];
  meter.start((s) => got.push(s));
  jest.advanceTimersByTime(seconds * 1000);
  meter.stop();
  return got;
}

// Handbook of common practice: what is seen at the meter and what it usually means.
test.each<[Scene, Pattern]>([
  ['charging', 'charging'],
  ['silent', 'noConversation'],
  ['flat pack', 'deepFlat'],
  ['swinging', 'cannotSettle'],
  ['restarting', 'missingSensor'],
  ['early load', 'processorSide'],
  ['dead', 'nothingAtAll'],
])('a meter that plays %s is read as %s', (scene, pattern) => {
  const samples = play(scene, 800, 10);
  const trace = {
    timesS: Float64Array.from(samples, (s) => s.timeS),
    volts: Float64Array.from(samples, (s) => s.volts),
    amps: Float64Array.from(samples, (s) => s.amps),
  };
  const way = { segments: nameSegments(trace, expected) };
  expect(concludeOutside(port, way, way, 'partly').pattern).toBe(pattern);
});

test('ten samples come each second, time goes on, and none comes after stop', () => {
  const meter = new SimulatedMeter('silent', 15, 1);
  const got: MeterSample[] = [];
  meter.start((s) => got.push(s));
  jest.advanceTimersByTime(5000);
  expect(got).toHaveLength(50);
  expect(got.every((s, i) => i === 0 || s.timeS > got[i - 1].timeS)).toBe(true);
  meter.stop();
  jest.advanceTimersByTime(5000);
  expect(got).toHaveLength(50);
});

test('a second start begins anew', () => {
  const meter = new SimulatedMeter('charging', 15, 1);
  const got: MeterSample[] = [];
  meter.start(() => undefined);
  jest.advanceTimersByTime(1000);
  meter.start((s) => got.push(s));
  jest.advanceTimersByTime(200);
  meter.stop();
  expect(got[0].timeS).toBe(0);
});

test('every scene can be played at either design level', () => {
  for (const scene of SCENES) expect(new SimulatedMeter(scene, 20, 1).name).toBe('simulated meter');
});
