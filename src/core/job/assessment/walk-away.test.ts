import { demoBoard } from '../../../../demo/files';
import { BenchPlay } from '../tests/bench-play';

const heron = demoBoard('heronlog-4-c');

test('a bent board that comes and goes is a reason to stop; either alone is not', () => {
  const comesAndGoes = ['look j1 good', 'usb a 14.8 0.5', 'usb a 5.02 0.01'];
  const bent = new BenchPlay(heron, { history: ['bend'] });
  expect(bent.type(...comesAndGoes).view.walkAway[0]).toBe(
    'The board was bent and readings come and go: recommend stopping.',
  );
  expect(new BenchPlay(heron).type(...comesAndGoes).view.walkAway).toEqual([]);
  const steady = ['look j1 good', 'usb a 14.8 0.5', 'usb a 14.7 0.5'];
  expect(new BenchPlay(heron, { history: ['bend'] }).type(...steady).view.walkAway).toEqual([]);
});

test('the same test on another board, after a part came off, is no sign of coming and going', () => {
  const lines = ['look j1 good', 'pack out', 'out', 'usb a 14.8 0.5', 'off u4', 'usb a 0 0'];
  expect(new BenchPlay(heron, { history: ['bend'] }).type(...lines).view.walkAway).toEqual([]);
});

test('a device worth less than what it needs, and the record that hours spent do not count', () => {
  const { walkAway } = new BenchPlay(heron, { worth: 5 }).type('look j1 good', 'usb a 0 0', 'usb b 0 0').view;
  expect(walkAway[0]).toMatch(/^About \d+ still to spend on a device worth 5: recommend stopping\.$/);
  expect(walkAway.at(-1)).toBe('Record what was found. Hours already spent do not count.');
});
