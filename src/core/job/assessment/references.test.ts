import { demoBoard } from '../../../../demo/files';
import { referencesFromJob } from './references';
import { BenchPlay } from '../tests/bench-play';

const heron = demoBoard('heronlog-4-c');
const mended = [
  'look j1 good',
  'pack out',
  'out',
  'tp7 1.6',
  'off u4',
  'on u4 new',
  'tp7 6.6k',
  'a5 0.262',
  'vbus 15.0',
];
const close = { kind: 'close', outcome: 'repaired', cause: 'The controller was shorted.' } as const;

test('a job that was closed as repaired leaves the newest good figure of each point', () => {
  const job = new BenchPlay(heron).type(...mended, 'tp7 6.5k').keep(close).view;
  expect(referencesFromJob(job)).toEqual([
    { boardId: 'heronlog-4-c', point: 'ohm:AON33', value: 6500, source: 'job 77' },
    { boardId: 'heronlog-4-c', point: 'pin:J1:A5', value: 0.262, source: 'job 77' },
    { boardId: 'heronlog-4-c', point: 'volts:VBUS', value: 15, source: 'job 77' },
  ]);
});

test('readings from before the repair, and bad ones, are left out', () => {
  const job = new BenchPlay(heron)
    .type('look j1 good', 'a6 0.258', 'out', 'off u4', 'on u4 new', 'a5 0.01')
    .keep(close).view;
  expect(referencesFromJob(job)).toEqual([]);
});

test('an open job, and one that was stopped, leave none', () => {
  expect(referencesFromJob(new BenchPlay(heron).type(...mended).view)).toEqual([]);
  const stopped = new BenchPlay(heron).type(...mended).keep({ ...close, outcome: 'stopped' });
  expect(referencesFromJob(stopped.view)).toEqual([]);
});
