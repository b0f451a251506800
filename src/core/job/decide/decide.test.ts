import fc from 'fast-check';
import { demoBoard } from '../../../../demo/files';
import { currentKey } from '../../diagnose';
import { foldJob, type EventBody, type JobEvent, type Origin } from '../log';
import { record, withOrigin, type JobCommand } from './command';
import { decide } from './decide';

const board = demoBoard('heronlog-4-c');
const marsh = demoBoard('marshdesk-2-b');
const at = (seq: number, body: EventBody): JobEvent => ({
  ...{ seq, at: `2026-11-24T08:00:${String(seq).padStart(2, '0')}.000Z`, bench: 'Bench 1', actor: 'Bench 2' },
  body,
});
const STORY: EventBody = {
  ...{ kind: 'story', symptom: 'dead', history: [], pack: 'sound' },
  ...{ dataMatters: false, locked: false, consent: true },
};
const after = (...bodies: EventBody[]): JobEvent[] => [STORY, ...bodies].map((body, i) => at(i + 1, body));
const decideAfter = (command: JobCommand, events: readonly JobEvent[], on = board) =>
  decide({ board: on, state: foldJob(events) }, command);
const refusal = (body: EventBody, ...before: EventBody[]): string => {
  const decided = decideAfter(record(body), after(...before));
  return decided.ok ? '' : decided.problems[0].message;
};

describe('rules of what may happen, at the one door', () => {
  const off: EventBody = { kind: 'partOff', ref: 'U4' };
  const on: EventBody = { kind: 'partOn', ref: 'U4', fresh: true };
  const close = (outcome: 'repaired' | 'stopped', reason?: string): EventBody => ({
    kind: 'close',
    outcome,
    cause: '',
    reason,
  });

  test('no part comes off twice, and none goes on that is on', () => {
    expect(refusal(off)).toBe('');
    expect(refusal(off, off)).toBe('U4 is off the board already.');
    expect(refusal(on)).toBe('U4 is on the board; expected one that was taken off.');
    expect(refusal(on, off)).toBe('');
    expect(refusal(off, off, on)).toBe('');
    expect(refusal({ kind: 'partOff', ref: 'U99' })).toBe('Expected a part of this board; got "U99".');
  });

  test('no power on a port that looked doubtful; a look at the new one lifts it', () => {
    const look = (value: 'pass' | 'fail'): EventBody => ({
      ...{ kind: 'reading', measurement: { kind: 'visualInspection', ref: 'J1' }, value: { kind: value } },
    });
    const usb: EventBody = {
      ...{ kind: 'reading', measurement: { kind: 'usbMeter', port: 'J1', side: 'A' } },
      value: { kind: 'pair', volts: 5, amps: 0 },
    };
    const ohm: EventBody = {
      ...{ kind: 'reading', measurement: { kind: 'groundResistance', net: 'VBUS' }, value: { kind: 'open' } },
    };
    expect(refusal(usb)).toBe('');
    expect(refusal(usb, look('fail'))).toMatch(/^Expected a sound port before power; J1 looked doubtful/);
    expect(refusal(ohm, look('fail'))).toBe('');
    expect(refusal(usb, look('fail'), look('pass'))).toBe('');
  });

  test('a job closes as repaired only with its gates met, or a reason; stopped at any time', () => {
    expect(refusal(close('repaired'))).toMatch(/^Expected all gates to hold, or a reason\. Not yet: /);
    expect(refusal(close('repaired', 'the owner waits'))).toBe('');
    expect(refusal(close('stopped'))).toBe('');
  });

  test('only a closed job comes back', () => {
    const back: EventBody = { kind: 'reopen', symptom: 'again' };
    expect(refusal(back)).toBe('Expected a closed job; this one is open.');
    expect(refusal(back, close('stopped'))).toBe('');
  });

  test('a soak begins once, and only a running one restarts or ends', () => {
    const soak = (act: 'start' | 'restart' | 'end'): EventBody => ({
      kind: 'soak',
      act,
      ...(act === 'start' && { minutes: 30 }),
    });
    expect(refusal(soak('restart'))).toMatch(/Expected a soak that runs/);
    expect(refusal(soak('end'))).toMatch(/Expected a soak that runs/);
    expect(refusal(soak('start'), soak('start'))).toMatch(/end it first/);
    expect(refusal(soak('start'), soak('start'), soak('end'))).toBe('');
  });

  test('shields and mended traces change only from what they are', () => {
    const shield = (off: boolean): EventBody => ({ kind: 'shield', id: 'SH1', off });
    const onMarsh = (body: EventBody, ...before: EventBody[]): string => {
      const decided = decideAfter(record(body), after(...before), marsh);
      return decided.ok ? '' : decided.problems[0].message;
    };
    expect(onMarsh(shield(false))).toBe('SH1 is on already.');
    expect(onMarsh(shield(true))).toBe('');
    expect(onMarsh(shield(true), shield(true))).toBe('SH1 is off already.');
    expect(refusal({ kind: 'shield', id: 'SH9', off: true })).toMatch(/^Expected a shield of this board/);
    expect(refusal({ kind: 'mended', what: 'VIN' }, { kind: 'mended', what: 'VIN' })).toBe('VIN is mended already.');
    expect(refusal({ kind: 'mended', what: 'U4' })).toMatch(/^Expected a rail or a screw/);
  });

  test('pads, sites, chips and images are of parts that are there', () => {
    const strangers: EventBody[] = [
      { kind: 'lifted', ref: 'U99', pins: [] },
      { kind: 'site', ref: 'U99', words: 'level' },
      { kind: 'imageWritten', ref: 'U99', sha256: 'a'.repeat(64) },
    ];
    for (const body of strangers) expect(refusal(body)).toBe('Expected a part of this board; got "U99".');
    expect(refusal({ kind: 'capture', port: 'J9', name: 'x', line: null, durationS: 1, packets: [] })).toMatch(
      /^Expected one of the ports/,
    );
  });
});

describe('promises, plans and currents', () => {
  /** Only what the rules look at. */
  const body = (given: object): EventBody => given as EventBody;
  const quote = (state: string): EventBody => body({ kind: 'quote', state });
  const awaits = (byAt: string | null): EventBody => body({ kind: 'delivery', byAt, what: 'donor board' });

  test('an answer to a quote follows one that was sent', () => {
    expect(refusal(quote('sent'))).toBe('');
    expect(refusal(quote('accepted'))).toBe('Expected a quote that was sent before it is accepted.');
    expect(refusal(quote('accepted'), quote('sent'))).toBe('');
    expect(refusal(quote('sent'), quote('sent'))).toBe('');
  });

  test('only what is waited for is there', () => {
    const nothing = 'Nothing is waited for. Expected what is, first: awaits 2026-12-02 donor board.';
    expect(refusal(awaits('2026-12-02'))).toBe('');
    expect(refusal(awaits(null))).toBe(nothing);
    expect(refusal(awaits(null), awaits('2026-12-02'))).toBe('');
    expect(refusal(awaits(null), awaits('2026-12-02'), awaits(null))).toBe(nothing);
  });

  test('a plan that breaks a limit is kept with a reason, any other without', () => {
    const plan = (breaks: string[], reason?: string): EventBody =>
      body({ kind: 'heatPlan', plan: { partRef: board.ports[0].controller, covers: [] }, shown: { breaks }, reason });
    expect(refusal(plan([]))).toBe('');
    expect(refusal(plan(['U9']))).toMatch(/^This plan breaks a limit\. Expected why it is kept all the same/);
    expect(refusal(plan(['U9'], 'a donor'))).toBe('');
  });

  test('a current goes into a net, not into ground', () => {
    const warm = (net: string): EventBody =>
      body({
        kind: 'reading',
        measurement: { kind: 'warmSpot', net, volts: 1, amps: 1 },
        value: { kind: 'choice', choice: 'none' },
      });
    expect(refusal(warm('GND'))).toBe('Expected a net to put the current into; got ground.');
    expect(refusal(warm('VIN'))).not.toMatch(/got ground/);
  });

  test('joints are mended as often as they are worked on; a trace once', () => {
    const mended = (what: string): EventBody => ({ kind: 'mended', what });
    expect(refusal(mended('VIN'), mended('PD18'))).toBe('');
    const joints = currentKey({ kind: 'joints', ref: 'U4' }, []);
    expect([refusal(mended(joints)), refusal(mended(joints), mended(joints))]).toEqual(['', '']);
  });

  test('the gates that do not hold are named in small letters, each with what is missing', () => {
    const sentence = refusal({ kind: 'close', outcome: 'repaired', cause: '' });
    expect(sentence).toMatch(/^Expected all gates to hold, or a reason\. Not yet: .+ \(.+\); .+ \(.+\)\.$/);
    const [, list] = /Not yet: (.*)\.$/.exec(sentence)!;
    for (const gate of list.split('; ')) expect(gate).toMatch(/^[a-z].* \([^)]+\)/);
  });
});

describe('what is asked, and where values come from', () => {
  test('a question leads to no event', () => {
    const asked: JobCommand[] = [
      { do: 'weigh', measurement: { kind: 'groundResistance', net: 'VIN' } },
      { do: 'weighWork', work: 'U4' },
    ];
    for (const command of asked) expect(decideAfter(command, after())).toEqual({ ok: true, value: [] });
  });

  test('an entry carries where it comes from; a simulated value is kept where simulators are allowed alone', () => {
    const note = record({ kind: 'note', text: 'x' });
    const from = (origin: Origin): JobCommand => withOrigin(note, origin);
    const meter: Origin = { kind: 'instrument', identification: 'Bench,Meter,17,1' };
    const simulated: Origin = { kind: 'simulated', by: 'the simulated supply' };
    expect(decideAfter(from(meter), after())).toEqual({
      ok: true,
      value: [{ body: { kind: 'note', text: 'x' }, origin: meter }],
    });
    expect(decideAfter(note, after())).toEqual({ ok: true, value: [{ body: { kind: 'note', text: 'x' } }] });
    const refused = decideAfter(from(simulated), after());
    expect(refused.ok ? '' : refused.problems[0].message).toBe(
      'Expected what was really seen: simulated values are kept in training jobs only.',
    );
    const allowed = decide({ board, state: foldJob(after()), simulators: true }, from(simulated));
    expect(allowed).toMatchObject({ ok: true, value: [{ origin: simulated }] });
    expect(withOrigin({ do: 'undoLast' }, meter)).toEqual({ do: 'undoLast' });
  });

  test('a command names what it corrects, and only then', () => {
    const text: EventBody = { kind: 'note', text: 'x' };
    expect(record(text)).toEqual({ do: 'record', body: text });
    expect(record(text, 2)).toEqual({ do: 'record', body: text, replaces: 2 });
    expect(decideAfter(record(text, 2), after(text))).toEqual({ ok: true, value: [{ body: text, replaces: 2 }] });
    const none = decideAfter(record(text, 7), after(text));
    expect(none.ok ? '' : none.problems[0].message).toBe(
      'Expected an entry that counts to correct; there is no number 7 among them.',
    );
  });
});

describe('undo and corrections', () => {
  test('undo takes back the last that counts, never the story', () => {
    const note: EventBody = { kind: 'note', text: 'x' };
    expect(decideAfter({ do: 'undoLast' }, after(note))).toMatchObject({
      ok: true,
      value: [{ body: { kind: 'undo', seq: 2 } }],
    });
    expect(decideAfter({ do: 'undoLast' }, after())).toMatchObject({
      problems: [{ message: 'Nothing to undo: the story stays.' }],
    });
    // From a script that names what it takes back: the same rule.
    expect(refusal({ kind: 'undo', seq: 1 }, note)).toMatch(/only it is taken back/);
    expect(refusal({ kind: 'undo', seq: 2 }, note)).toBe('');
  });

  test('a later story corrects the one with which the job came in, or came back', () => {
    expect(decideAfter(record(STORY), after())).toMatchObject({ value: [{ replaces: 1 }] });
    const back = after({ kind: 'close', outcome: 'stopped', cause: '' }, { kind: 'reopen', symptom: 'again' });
    const decided = decideAfter(record(STORY), back);
    expect(decided.ok && decided.value[0].replaces).toBeUndefined();
    expect(decideAfter(record(STORY), [...back, at(4, STORY)])).toMatchObject({ value: [{ replaces: 4 }] });
  });

  test('only an entry that counts is corrected', () => {
    expect(decideAfter(record({ kind: 'note', text: 'y' }, 7), after())).toMatchObject({ ok: false });
  });
});

test('whatever is commanded in whatever order: no part is off twice, and the story stays', () => {
  const commands = fc.constantFrom<JobCommand>(
    record({ kind: 'partOff', ref: 'U4' }),
    record({ kind: 'partOff', ref: 'C14' }),
    record({ kind: 'partOn', ref: 'U4', fresh: true }),
    record({ kind: 'partOn', ref: 'C14', fresh: false }),
    record({ kind: 'note', text: 'n' }),
    record({ kind: 'close', outcome: 'stopped', cause: '' }),
    record({ kind: 'reopen', symptom: 'again' }),
    { do: 'undoLast' },
  );
  fc.assert(
    fc.property(fc.array(commands, { maxLength: 30 }), (list) => {
      const events = after();
      for (const command of list) {
        const decided = decideAfter(command, events);
        if (decided.ok)
          for (const { body, replaces } of decided.value)
            events.push({ ...at(events.length + 1, body), ...(replaces !== undefined && { replaces }) });
        const { absent, story, placed } = foldJob(events);
        expect(new Set(absent).size).toBe(absent.length);
        expect(absent.some((ref) => ref in placed)).toBe(false);
        expect(story).toBeDefined();
      }
    }),
    { numRuns: 100, seed: 11 },
  );
});
