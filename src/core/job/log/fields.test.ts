import { foldJob, type EventBody, type JobEvent, type JobState } from '.';

const STORY: EventBody = {
  ...{ kind: 'story', symptom: 'dead', history: ['liquid'], pack: 'sound' },
  ...{ dataMatters: false, locked: false, consent: true },
};
const AT = (seq: number): string => `2026-11-24T08:00:${String(seq).padStart(2, '0')}.000Z`;

/** A job's log: the story, then each of these; the story is number 1. */
const log = (...bodies: JobEvent['body'][]): JobEvent[] =>
  [STORY, ...bodies].map((body, i) => ({ seq: i + 1, at: AT(i + 1), bench: 'Bench 1', actor: 'Lead', body }));
const after = (...bodies: JobEvent['body'][]): JobState => foldJob(log(...bodies));

/** Only what the fold looks at; the rest of the form is held by its schema elsewhere. */
const body = (given: { readonly kind: EventBody['kind'] } & Readonly<Record<string, unknown>>): EventBody =>
  given as unknown as EventBody;

const off = (ref: string): EventBody => ({ kind: 'partOff', ref });
const on = (ref: string, fresh = true): EventBody => ({ kind: 'partOn', ref, fresh });
const mended = (what: string): EventBody => ({ kind: 'mended', what });
const written = (ref: string): EventBody => ({ kind: 'imageWritten', ref, sha256: 'a'.repeat(64) });
const note = (text: string): EventBody => ({ kind: 'note', text });
const close: EventBody = { kind: 'close', outcome: 'stopped', cause: '' };
const reopen: EventBody = { kind: 'reopen', symptom: 'again' };
const ohm = (net: string): EventBody => ({
  ...{ kind: 'reading', measurement: { kind: 'groundResistance', net }, value: { kind: 'figure', value: 2 } },
});
const swap = (what: string): EventBody =>
  body({ kind: 'reading', measurement: { kind: 'knownGoodSwap', what }, value: { kind: 'fail' } });

test('a job begins closed, whole and untouched', () => {
  const { live, undoable, story, ...rest } = after();
  expect([live.length, undoable, story]).toEqual([1, undefined, STORY]);
  expect(Object.fromEntries(Object.entries(rest).filter(([, v]) => v !== undefined))).toEqual({
    ...{ access: 'closed', packOut: false, work: 0, writing: false },
    ...{ placed: {}, lifted: {}, inspections: {}, padLooks: {}, flatness: {}, images: {}, traces: {} },
    ...{ tracesBefore: {}, captures: {}, readings: [], removedShields: [], absent: [], replaced: [], swapped: [] },
    ...{ doneSince: [], runEvents: [], pictures: [], soaks: [], notes: [], priorClosures: [], unreadable: [] },
  });
});

describe('how far the board is open', () => {
  const usb = body({
    ...{ kind: 'reading', measurement: { kind: 'usbMeter', port: 'J1', side: 'A' } },
    value: { kind: 'pair', volts: 5, amps: 0 },
  });
  test.each<[string, EventBody, JobState['access']]>([
    ['a reading from outside leaves it closed', usb, 'closed'],
    ['a resistance to ground opens it', ohm('AON33'), 'out'],
    ['it is said', { kind: 'access', access: 'open' }, 'open'],
    ['a part that comes off', off('U4'), 'out'],
    ['a shield', { kind: 'shield', id: 'SH1', off: true }, 'out'],
    ['a mended trace', mended('VIN'), 'out'],
    ['a note', note('x'), 'closed'],
  ])('%s', (_, event, access) => expect(after(event).access).toBe(access));

  test('a reading never closes it again; a word does', () => {
    expect(after(ohm('AON33'), usb).access).toBe('out');
    expect(after(ohm('AON33'), { kind: 'access', access: 'closed' }).access).toBe('closed');
  });
});

describe('what is off, new and worked on', () => {
  test('shields come and go by their names, each once', () => {
    const shield = (id: string, isOff: boolean): EventBody => ({ kind: 'shield', id, off: isOff });
    expect(after(shield('A', true), shield('B', true), shield('A', true)).removedShields).toEqual(['B', 'A']);
    expect(after(shield('A', true), shield('B', true), shield('A', false)).removedShields).toEqual(['B']);
  });

  test('a part is absent from coming off to going on, listed once', () => {
    expect(after(off('U4'), off('C1'), off('U4')).absent).toEqual(['C1', 'U4']);
    expect(after(off('U4'), off('C1'), on('U4')).absent).toEqual(['C1']);
  });

  test('the pack is out from the word to the word', () => {
    const pack = (state: string): EventBody => body({ kind: 'pack', state });
    expect([after(pack('out')), after(pack('out'), pack('in')), after(pack('out'), note('x'))].map((s) => s.packOut)) //
      .toEqual([true, false, true]);
  });

  test('each new part counts again, the same one back on does not; joints are those of the part that is there', () => {
    const state = after(off('U4'), on('U4'), mended('joints U4'), off('U4'), on('U4'), written('U9'), on('C1', false));
    expect(state.replaced).toHaveLength(4);
    expect([state.replaced[0], state.replaced[2], state.replaced[3]]).toEqual(['U4', 'U4', 'U9/image']);
    expect(after(mended('VIN')).replaced).toEqual(['VIN']);
  });

  test('what was done since the decision begins with it', () => {
    const decision = (ref: string): EventBody => body({ kind: 'decision', ref });
    const done = (...bodies: EventBody[]): readonly string[] => after(...bodies).doneSince;
    expect(done(on('U4'), mended('VIN'), written('U9'), on('U4'))).toEqual(['U4', 'VIN', 'U9/image']);
    expect(done(on('U4'), mended('VIN'), decision('U5'))).toEqual([]);
    expect(done(decision('U4'), on('U4'), mended('VIN'), off('U4'))).toEqual(['VIN']);
    expect(done(on('C1', false), note('x'))).toEqual([]);
  });

  test('a part is placed by the event that soldered it, until it comes off', () => {
    expect(after(off('U4'), on('U4'), on('C1', false)).placed).toEqual({ U4: 3, C1: 4 });
    expect(after(on('U4'), on('C1'), off('U4'), note('x')).placed).toEqual({ C1: 3 });
  });

  test('work is whatever makes the board another one', () => {
    expect([off('U4'), on('U4'), mended('VIN'), written('U9')].map((b) => after(note('x'), b, note('y')).work)) //
      .toEqual([3, 3, 3, 3]);
    expect(after(note('x'), ohm('AON33'), { kind: 'shield', id: 'A', off: true }).work).toBe(0);
  });

  test('what stands in line as a known-good one counts from the next reading on, each once', () => {
    const state = after(swap('cable'), ohm('AON33'), swap('cable'), swap('charger'));
    expect(state.swapped).toEqual(['cable', 'charger']);
    expect(state.readings.map((r) => r.swapped)).toEqual([[], ['cable'], ['cable'], ['cable']]);
  });
});

describe('the latest of each', () => {
  test('a decision, a plan, a site, a promise, a quote and a delivery each take the place of the one before', () => {
    const kinds = ['decision', 'heatPlan', 'site', 'promise', 'quote', 'delivery', 'device'] as const;
    for (const kind of kinds) {
      const [first, second] = [body({ kind, n: 1 }), body({ kind, n: 2 })];
      expect(after(first, second, note('x'))[kind]).toBe(second);
    }
    expect(after(written('U9'), written('U5'), note('x')).written).toEqual(written('U5'));
  });

  test('the chip chosen goes with a decision about another part, not with one about the same', () => {
    const route = body({ kind: 'route', ref: 'U4' });
    const about = (ref: string): EventBody => body({ kind: 'decision', ref });
    expect(after(about('U4'), route, about('U4'), note('x')).route).toBe(route);
    expect(after(about('U4'), route, about('U5')).route).toBeUndefined();
    expect(after(route, body({ kind: 'route', ref: 'U5' })).route).toMatchObject({ ref: 'U5' });
  });

  test.each([
    ['inspection', 'inspections'],
    ['padLook', 'padLooks'],
    ['flatness', 'flatness'],
  ] as const)('%s: one for each part', (kind, field) => {
    const look = (ref: string, n: number): EventBody => body({ kind, ref, n });
    expect(after(look('U4', 1), look('U5', 1), look('U4', 2), note('x'))[field]).toEqual({
      U4: look('U4', 2),
      U5: look('U5', 1),
    });
  });

  test('how flat a part lies is gone with it; what was seen of its pads stays', () => {
    const state = after(
      body({ kind: 'flatness', ref: 'U4' }),
      body({ kind: 'flatness', ref: 'U5' }),
      body({ kind: 'lifted', ref: 'U4', pins: ['3'] }),
      body({ kind: 'lifted', ref: 'U5', pins: ['1', '2'] }),
      body({ kind: 'lifted', ref: 'U4', pins: ['3', '4'] }),
      off('U4'),
    );
    expect(Object.keys(state.flatness)).toEqual(['U5']);
    expect(state.lifted).toEqual({ U4: ['3', '4'], U5: ['1', '2'] });
  });

  test('presses, pictures and notes add up in their order', () => {
    const [a, b] = [body({ kind: 'run', run: 'r', act: 'start' }), body({ kind: 'run', run: 'r', act: 'end' })];
    const [p, q] = [body({ kind: 'picture', sha256: '1' }), body({ kind: 'picture', sha256: '2' })];
    const state = after(a, p, note('x'), b, q, note('y'));
    expect([state.runEvents, state.pictures, state.notes]).toEqual([
      [a, b],
      [p, q],
      ['x', 'y'],
    ]);
  });

  test('one capture of each port', () => {
    const capture = (port: string, n: number): EventBody => body({ kind: 'capture', port, n });
    expect(after(capture('J1', 1), capture('J2', 1), capture('J1', 2), note('x')).captures).toEqual({
      J1: capture('J1', 2),
      J2: capture('J2', 1),
    });
  });
});

describe('images and writing', () => {
  const image = (role: string, n = 0): EventBody => body({ kind: 'image', role, n });

  test('a write goes on from the image before it until it is written', () => {
    expect(after(image('patient')).writing).toBe(false);
    expect(after(image('before'), note('x')).writing).toBe(true);
    expect(after(image('before'), written('U9')).writing).toBe(false);
  });

  test('a half-written chip is not taken for the original; other images are kept meanwhile', () => {
    const state = after(image('before', 1), image('before', 2), image('donor', 3));
    expect(state.images).toEqual({ before: image('before', 1), donor: image('donor', 3) });
    expect(after(image('before', 1), written('U9'), image('before', 2)).images.before).toEqual(image('before', 2));
    expect(after(image('patient', 1), image('patient', 2), note('x')).images.patient).toEqual(image('patient', 2));
  });
});

describe('traces of a plug way', () => {
  const trace = (port: string, side: string, n: number): EventBody => body({ kind: 'trace', port, side, n });

  test('the latest of each way is kept, with the work before it', () => {
    const { traces, tracesBefore } = after(trace('J1', 'A', 1), trace('J1', 'B', 2), trace('J1', 'A', 3), note('x'));
    expect(traces).toEqual({
      'J1 A': { ...trace('J1', 'A', 3), work: 0 },
      'J1 B': { ...trace('J1', 'B', 2), work: 0 },
    });
    expect(tracesBefore).toEqual({});
  });

  test('the last one from before a work is kept beside it, and not the one of the same board', () => {
    const state = after(trace('J1', 'A', 1), off('U4'), trace('J1', 'A', 2), trace('J1', 'A', 3), note('x'));
    expect(state.traces['J1 A']).toMatchObject({ n: 3, work: 3 });
    expect(state.tracesBefore).toEqual({ 'J1 A': { ...trace('J1', 'A', 1), work: 0 } });
  });
});

describe('closed, and back', () => {
  test('a closed job says when; nothing but a closing closes it', () => {
    expect(after(note('x'), close).closed).toEqual({ ...close, at: AT(3) });
    expect(after(close, note('x')).closed).toEqual({ ...close, at: AT(2) });
  });

  test('it comes back with its device, its damage and its story, and without what was read', () => {
    const device = body({ kind: 'device', serial: 'S1' });
    const torn: JobEvent['body'] = { kind: 'unreadable', problem: 'torn' };
    const lifted = body({ kind: 'lifted', ref: 'U4', pins: ['3'] });
    const state = after(device, torn, lifted, ohm('AON33'), off('U4'), on('U4'), note('x'), close, reopen);
    expect(state).toMatchObject({
      ...{ device, lifted: { U4: ['3'] }, unreadable: [{ seq: 3, problem: 'torn' }], closed: undefined, work: 10 },
      ...{ readings: [], replaced: [], notes: [], placed: {}, access: 'closed' },
      story: { symptom: 'again', history: ['liquid', 'earlierRepair'] },
    });
    expect(state.priorClosures).toHaveLength(1);
    const [{ state: prior, reopenedAt }] = state.priorClosures;
    expect(reopenedAt).toBe(AT(10));
    expect(prior).toMatchObject({ replaced: ['U4'], notes: ['x'], closed: { at: AT(9) }, priorClosures: [] });
  });

  test('the second time it keeps both closings, and says once that somebody was in it', () => {
    const state = after(close, reopen, close, { kind: 'reopen', symptom: 'once more' });
    expect(state.priorClosures.map((c) => c.state.story?.symptom)).toEqual(['dead', 'again']);
    expect(state.story).toMatchObject({ symptom: 'once more', history: ['liquid', 'earlierRepair'] });
  });
});
