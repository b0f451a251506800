import { demoBoard } from '../../../../demo/files';
import { LOOK_FINDINGS } from '../../diagnose';
import { parseEntry } from '../entry/grammar';
import { LOOK_ADVICE, isGated, portGate } from './gate';
import { BenchPlay } from '../tests/bench-play';

const heron = demoBoard('heronlog-4-c');
const marsh = demoBoard('marshdesk-2-b');
const view = (lines: readonly string[], board = heron) => new BenchPlay(board).type(...lines).view;

test('the first thing asked is a look into the port, and nothing that powers it is proposed before', () => {
  const job = view([]);
  expect(job.next).toMatchObject({ stage: 'outside', title: 'Look into port J1 with magnification' });
  expect(job.tests.some((t) => /^(usb|swap|tester|shape|talk)/.test(t.id))).toBe(false);
  expect(portGate(job.state, 'J1').state).toBe('unlooked');
});

test('a sound port opens the meter', () => {
  const job = view(['look j1 good']);
  expect(job.tests[0].id).toMatch(/^(usb|shape|tester)/);
});

test('a doubtful port is not powered: nothing is proposed there and entries are refused with what to do', () => {
  const job = view(['look j1 bad pins corrosion']);
  const { state } = job;
  expect(portGate(state, 'J1')).toMatchObject({ state: 'doubtful', message: 'crossed or pushed-back pins, corrosion' });
  for (const line of ['usb a 5.02 0.01', 'usb a swing', 'tester fail', 'swap cable same', 'talk a silent']) {
    const entry = parseEntry(heron, state, line, 'ohm');
    expect(!entry.ok && entry.problems[0].message).toContain('Expected a sound port before power; J1 looked doubtful');
  }
  expect(job.tests.length).toBeGreaterThan(0);
  expect(job.tests.every((t) => !/^(usb|swap|tester|shape|talk|works|volts)/.test(t.id))).toBe(true);
});

test('looked at again and found good, or replaced and found good, it may have power', () => {
  expect(portGate(view(['look j1 bad debris', 'look j1 good']).state, 'J1').state).toBe('sound');
  const renewed = view(['look j1 bad pins', 'off j1', 'on j1 new']).state;
  expect(portGate(renewed, 'J1').state).toBe('unlooked');
  expect(portGate(view(['look j1 bad pins', 'off j1', 'on j1 new', 'look j1 good']).state, 'J1').state).toBe('sound');
});

test('each port of a board has its own gate', () => {
  const state = view(['look j1 bad shell', 'look j2 good'], marsh).state;
  expect(isGated(marsh, state, { kind: 'usbMeter', port: 'J1', side: 'A' })).toBe(true);
  expect(isGated(marsh, state, { kind: 'usbMeter', port: 'J2', side: 'A' })).toBe(false);
  expect(isGated(marsh, state, { kind: 'usbMeter', port: 'J3', side: 'A' })).toBe(true);
  expect(isGated(marsh, state, { kind: 'contactDrop', port: 'J1', pin: 'A5' })).toBe(false);
  expect(isGated(marsh, state, { kind: 'functionTest', fn: 'charge' })).toBe(false);
});

test('every finding has its advice', () => {
  for (const finding of LOOK_FINDINGS) expect(LOOK_ADVICE[finding]).toMatch(/\.$/);
});
