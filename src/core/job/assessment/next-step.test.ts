import { orderProofs } from '../../proof';
import { demoBoard } from '../../../../demo/files';
import { DEFAULT_PRACTICE, Predictor } from '../../diagnose';
import { railWindows } from '../../proof';
import { analyseJob } from './analysis';
import { cautionFor } from './cautions';
import type { EventBody, JobEvent, Story } from '../log';
import { findingsOf, shortWords } from './findings';
import { foldJob } from '../log';
import { nextStep } from './next-step';
import { proveJob } from '../proof/proof';
import { STAGES } from './stages';
import { storyShift } from './story';

const board = demoBoard('heronlog-4-c');
const predictor = Predictor.of(board);
const story = (more: Partial<Story> = {}): EventBody => ({
  kind: 'story',
  symptom: 'dead',
  history: [],
  dataMatters: false,
  locked: false,
  consent: true,
  pack: 'sound',
  ...more,
});
const usb = (side: 'A' | 'B', volts: number, amps: number): EventBody => ({
  kind: 'reading',
  measurement: { kind: 'usbMeter', port: 'J1', side },
  value: { kind: 'pair', volts, amps },
});

function after(...bodies: EventBody[]) {
  const events = bodies.map((body, i): JobEvent => ({
    seq: i + 1,
    at: '2026-11-24T08:00:00.000Z',
    bench: 'Bench 1',
    actor: 'Apprentice',
    body,
  }));
  const state = foldJob(events);
  const analysis = analyseJob(predictor, state, DEFAULT_PRACTICE);
  const proof = proveJob(predictor, state);
  return {
    state,
    analysis,
    proof,
    next: nextStep(board, state, analysis, proof, orderProofs(board.functions, new Map())),
    findings: findingsOf(board, state, analysis, proof),
  };
}

describe('the next step', () => {
  test('starts with the story', () => {
    expect(after().next).toEqual({ stage: 'arrive', title: 'Take the story down' });
  });

  test('goes outside before inside: the first tests need no opening', () => {
    expect(after(story()).next.stage).toBe('outside');
    expect(after(story()).analysis.tests[0].access).toBe('closed');
  });

  test('says so when nothing on the board is at fault', () => {
    const good: EventBody[] = [
      usb('A', 15, 0.6),
      usb('B', 15, 0.6),
      ...board.functions.map((f): EventBody => ({
        kind: 'reading',
        measurement: { kind: 'functionTest', fn: f.id },
        value: { kind: 'pass' },
      })),
    ];
    good.push({ kind: 'reading', measurement: { kind: 'visualInspection', ref: 'J1' }, value: { kind: 'pass' } });
    for (const { rail, expectV } of railWindows(board)) {
      good.push({
        kind: 'reading',
        measurement: { kind: 'railVoltage', rail: rail.id },
        value: { kind: 'figure', value: expectV },
      });
    }
    const { state, analysis, proof } = after(story(), ...good);
    expect(analysis.suspects[0].ref).toBe('outside');
    // Once no test would say more, the step is to look outside the board.
    expect(nextStep(board, state, { ...analysis, tests: [] }, proof, { tests: [], expectedMinutes: 0 })).toMatchObject({
      stage: 'decide',
      title: expect.stringMatching(/^Nothing on this board/),
    });
  });

  test('a decision to stop leads to closing', () => {
    expect(after(story(), { kind: 'decision', action: 'stop', ref: null }).next).toEqual({
      stage: 'close',
      title: 'Close: stopped',
    });
  });

  test('a rewrite goes to the image; a replaced flash needs its image too', () => {
    expect(after(story(), { kind: 'decision', action: 'rewrite', ref: 'U9' }).next.stage).toBe('image');
    const replaced = after(
      story(),
      { kind: 'decision', action: 'replace', ref: 'U9' },
      { kind: 'partOff', ref: 'U9' },
      { kind: 'partOn', ref: 'U9', fresh: true },
    );
    expect(replaced.next).toEqual({ stage: 'image', title: 'Write the image into the new U9' });
  });
});

test('a placed part is touched before power, and power once begun is not held up by it', () => {
  const placed: EventBody[] = [
    story(),
    { kind: 'decision', action: 'replace', ref: 'U2' },
    { kind: 'partOff', ref: 'U2' },
    { kind: 'partOn', ref: 'U2', fresh: true },
  ];
  expect(after(...placed).next).toEqual({ stage: 'prove', title: 'Touch U2 joint by joint, before power' });
  const volts: EventBody = {
    kind: 'reading',
    measurement: { kind: 'railVoltage', rail: 'VBUS' },
    value: { kind: 'figure', value: 15 },
  };
  expect(after(...placed, volts).next.title).toBe('Measure VBUS_F');
});

describe('findings', () => {
  test('one side only is told apart from both', () => {
    expect(after(story(), usb('A', 15, 0.6), usb('B', 5.02, 0.01)).findings.outside).toBe(
      'A way: charging; B way: no conversation',
    );
    expect(after(story(), usb('A', 5.02, 0.01), usb('B', 5.02, 0.01)).findings.outside).toBe(
      '5.02 V and 0.01 A both ways: no conversation',
    );
  });

  test('the story in a line', () => {
    expect(after(story({ history: ['liquid', 'fall'], dataMatters: true, pack: 'none' })).findings.arrive).toBe(
      'Liquid, fall. Data matters. No pack.',
    );
  });

  test('suspects in short', () => {
    expect(shortWords('U4 port controller, AON33 shorted inside')).toBe('U4: AON33 shorted inside');
    expect(shortWords('Nothing on this board: charger, cable, pack')).toBe(
      'Nothing on this board: charger, cable, pack',
    );
  });

  test('closing with a reason shows', () => {
    expect(
      after(story(), { kind: 'close', outcome: 'repaired', cause: '', reason: 'owner in a hurry' }).findings.close,
    ).toBe('Repaired, with a reason');
  });
});

describe('cautions', () => {
  test('every stage has one, and a swollen pack overrules them all until it is out', () => {
    const sound = after(story()).state;
    const swollen = after(story({ pack: 'swollen' })).state;
    for (const { id } of STAGES) {
      expect(cautionFor(id, sound).text.length).toBeGreaterThan(20);
      expect(cautionFor(id, swollen).title).toBe('Swollen pack.');
    }
    expect(cautionFor('probe', sound).title).toBe('Pack unplugged?');
    expect(cautionFor('probe', after(story(), { kind: 'pack', state: 'out' }).state).title).toBe('Pack is out.');
  });
});

describe('the proof of a job', () => {
  test('readings from before the work prove nothing', () => {
    const volts = (rail: string, value: number): EventBody => ({
      kind: 'reading',
      measurement: { kind: 'railVoltage', rail },
      value: { kind: 'figure', value },
    });
    const before = after(story(), volts('AON33', 3.3));
    expect(before.proof.rails.rails.find((r) => r.rail.id === 'AON33')!.state).toBe('passes');
    const worked = after(
      story(),
      volts('AON33', 3.3),
      { kind: 'partOff', ref: 'F1' },
      { kind: 'partOn', ref: 'F1', fresh: true },
    );
    expect(worked.proof.rails.rails.find((r) => r.rail.id === 'AON33')!.state).toBe('untested');
  });

  test('full level without current passes while the pack is out, and only then', () => {
    const healthy = (bodies: EventBody[]): boolean | undefined =>
      after(story(), ...bodies, usb('A', 15, 0.03)).proof.plugs[0].healthy;
    expect(healthy([{ kind: 'pack', state: 'out' }])).toBe(true);
    expect(healthy([])).toBe(false);
  });

  test('an image gate appears once an image was worked on, and holds only for the image that was written', () => {
    const image = (sha256: string, sound: boolean): EventBody => ({
      kind: 'image',
      role: 'merged',
      sha256,
      name: 'm',
      sizeBytes: 1,
      sound,
    });
    const gate = (...bodies: EventBody[]) => after(story(), ...bodies).proof.gates.find((g) => g.id === 'image');
    expect(gate()).toBeUndefined();
    expect(gate(image('a'.repeat(64), true))!.holds).toBe(false);
    expect(gate(image('a'.repeat(64), true), { kind: 'imageWritten', ref: 'U9', sha256: 'a'.repeat(64) })!.holds).toBe(
      true,
    );
    expect(gate(image('a'.repeat(64), true), { kind: 'imageWritten', ref: 'U9', sha256: 'b'.repeat(64) })!.holds).toBe(
      false,
    );
  });
});

test('the story’s shift compares the odds with and without it', () => {
  const [top] = storyShift(board, ['unknownCharger']);
  expect(top.ref).toBe('U4');
  expect(top.p).toBeGreaterThan(top.before);
  expect(storyShift(board, []).every((s) => s.p === s.before)).toBe(true);
});
