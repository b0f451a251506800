import { demoBoard } from '../../../../demo/files';
import { seededRandom } from '../../math';
import { CHARGERS, simulateTrace, type Trace } from '../../trace';
import { captureCsv, conversation, edgesOf, OFFERS_65W, TROUBLES } from '../../usb';
import { readCapture } from '../../import';
import { eventBodySchema, type EventBody, type JobEvent } from '../log';
import { foldJob } from '../log';
import { captureBody, dialogueOf, outsideOf, traceBody } from './outside';
import { viewJob } from './view';

const board = demoBoard('heronlog-4-c');
const [port] = board.ports;
const charger = CHARGERS.find((c) => c.name === '65 W')!;
const events = (...bodies: EventBody[]): JobEvent[] =>
  bodies.map((body, i) => ({
    seq: i + 1,
    at: '2026-11-24T08:00:00.000Z',
    bench: 'Bench 1',
    actor: 'Apprentice',
    body,
  }));
const state = (...bodies: EventBody[]) => foldJob(events(...bodies));
const random = seededRandom(5);
const silent = simulateTrace([{ name: 'noTalk', durationS: 60, volts: 5.02, amps: [0.01, 0.01] }], random);
const charging = simulateTrace(
  [
    { name: 'noTalk', durationS: 4, volts: 5, amps: [0.01, 0.01] },
    { name: 'ramp', durationS: 16, volts: 15, amps: [0.05, 0.6] },
    { name: 'hold', durationS: 40, volts: 15, amps: [0.6, 0.6] },
  ],
  random,
);
const usb = (side: 'A' | 'B', volts: number, amps: number): EventBody => ({
  kind: 'reading',
  measurement: { kind: 'usbMeter', port: 'J1', side },
  value: { kind: 'pair', volts, amps },
});

describe('traces', () => {
  test('are kept within what the event schema allows, evenly thinned where they are long', () => {
    const long: Trace = simulateTrace([{ name: 'hold', durationS: 1800, volts: 15, amps: [0.6, 0.6] }], random);
    const body = traceBody('J1', 'A', 'half an hour.csv', long);
    expect(eventBodySchema.safeParse(body).success).toBe(true);
    expect(body.timesS.length).toBeLessThanOrEqual(1200);
    expect(body.timesS[body.timesS.length - 1]).toBeGreaterThan(1790);
    expect(body.volts.length).toBe(body.timesS.length);
  });

  test('of both ways lead to one conclusion; the newer trace of a way counts', () => {
    const first = state(traceBody('J1', 'A', 'a.csv', silent), traceBody('J1', 'B', 'b.csv', charging));
    expect(outsideOf(port, first, charger).conclusion!.pattern).toBe('oneSide');
    const again = state(
      traceBody('J1', 'A', 'a.csv', silent),
      traceBody('J1', 'B', 'b.csv', charging),
      traceBody('J1', 'A', 'a2.csv', charging),
    );
    expect(outsideOf(port, again, charger).conclusion!.pattern).toBe('charging');
  });

  test('typed readings stand where there is no trace', () => {
    const mixed = outsideOf(port, state(traceBody('J1', 'A', 'a.csv', silent), usb('B', 5.02, 0.01)), charger);
    expect(mixed.ways.map((w) => w.trace !== undefined)).toEqual([true, false]);
    expect(mixed.conclusion!.pattern).toBe('noConversation');
    expect(outsideOf(port, state(), charger).conclusion).toBeUndefined();
  });

  test('what was read before the last work and what was read after it stand apart', () => {
    const work: EventBody[] = [
      { kind: 'partOff', ref: 'U4' },
      { kind: 'partOn', ref: 'U4', fresh: true },
    ];
    const first = [traceBody('J1', 'A', 'a.csv', silent), usb('B', 5.02, 0.01)];
    const at = (time: 'before' | 'now', ...bodies: EventBody[]) =>
      outsideOf(port, state(...bodies), charger, undefined, time);
    expect(at('now', ...first, ...work).conclusion).toBeUndefined();
    expect(at('before', ...first, ...work).conclusion!.pattern).toBe('noConversation');
    const after = [...first, ...work, usb('A', 15, 0.6), usb('B', 15, 0.61)];
    expect(at('now', ...after).conclusion!.pattern).toBe('charging');
    expect(at('before', ...after).conclusion!.pattern).toBe('noConversation');
    // A newer trace takes the place of an older one on the same board, and leaves the one from before the work alone.
    const traced = state(
      ...first,
      ...work,
      traceBody('J1', 'A', 'b.csv', silent),
      traceBody('J1', 'A', 'c.csv', silent),
    );
    expect([traced.tracesBefore['J1 A'].name, traced.traces['J1 A'].name]).toEqual(['a.csv', 'c.csv']);
  });

  test('the pack’s state changes what is healthy', () => {
    const idle = [usb('A', 15, 0.02), usb('B', 15, 0.02)];
    expect(outsideOf(port, state(...idle), charger).conclusion!.pattern).toBe('unclear');
    expect(outsideOf(port, state({ kind: 'pack', state: 'out' }, ...idle), charger).conclusion!.pattern).toBe(
      'idleWithoutPack',
    );
  });

  test('can be undone like any entry, and say what undo would take back', () => {
    const bodies: EventBody[] = [{ kind: 'note', text: 'first' }, traceBody('J1', 'A', 'a.csv', silent)];
    expect(viewJob(1, '2026-11-24T08:00:00.000Z', board, events(...bodies)).undoable).toBe('trace A way');
    expect(state(...bodies, { kind: 'undo', seq: 2 }).traces).toEqual({});
  });
});

describe('captures', () => {
  const capture = (trouble: (typeof TROUBLES)[number]) => {
    const packets = conversation({ trouble, offers: OFFERS_65W, want: 3, wantMa: 2000, cable: true });
    const reading = readCapture(new TextEncoder().encode(captureCsv(edgesOf(packets, { seed: 2 }), 'CC2', 4e6)));
    if (reading.kind === 'refused' || !reading.value) throw new Error('Expected a capture that is read.');
    return reading.value;
  };

  test.each(TROUBLES)('%s: what is kept reads as the capture did, and passes the schema', (trouble) => {
    const body = captureBody('J1', `${trouble}.csv`, capture(trouble));
    expect(eventBodySchema.safeParse(body).success).toBe(true);
    const kept = dialogueOf(board, JSON.parse(JSON.stringify(body)));
    const { stop } = dialogueOf(board, body);
    expect(kept).toEqual(dialogueOf(board, body));
    expect(stop).toBe(
      {
        none: 'contract',
        noAnswer: 'offersUnanswered',
        noRd: 'silent',
        refused: 'refused',
        collapse: 'collapsed',
        noisy: 'noisy',
        badImage: 'offersNotAsked',
      }[trouble],
    );
  });

  test('the newest capture of a port is the one that is shown', () => {
    const two = state(
      captureBody('J1', 'first.csv', capture('none')),
      captureBody('J1', 'second.csv', capture('noAnswer')),
    );
    expect(two.captures.J1.name).toBe('second.csv');
    expect(two.captures.J1.line).toBe('CC2');
  });
});
