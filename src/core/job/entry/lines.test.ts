/** Every line for work, pads and the record: what it means, how it is echoed, what is offered after it, what is refused. */
import { demoBoard } from '../../../../demo/files';
import { foldJob, type JobEvent, type JobState } from '../log';
import { recordedBy } from '../tests/typed';
import { completeEntry, isQuestion, JOB_GRAMMAR, parseEntry } from './grammar';

const heron = demoBoard('heronlog-4-c');
const marsh = demoBoard('marshdesk-2-b');
const BOARDS = { heron, marsh };

/** A job's state after lines that it keeps. */
function after(lines: readonly string[], board: keyof typeof BOARDS): JobState {
  const events: JobEvent[] = [];
  for (const line of lines) {
    const entry = parseEntry(BOARDS[board], foldJob(events), line, 'ohm');
    if (!entry.ok) throw new Error(`${line}: ${entry.problems[0].message}`);
    const seq = events.length + 1;
    events.push({
      seq,
      at: '2026-11-24T08:00:00.000Z',
      bench: 'Bench 1',
      actor: 'Mira',
      body: recordedBy(entry.value),
    });
  }
  return foldJob(events);
}

/** A line read after others, on one of the boards. */
const read = (line: string, board: keyof typeof BOARDS = 'heron', before: readonly string[] = []) =>
  parseEntry(BOARDS[board], after(before, board), line, 'ohm');
const refusal = (line: string, board: keyof typeof BOARDS = 'heron', before: readonly string[] = []): string => {
  const entry = read(line, board, before);
  return entry.ok ? `kept: ${entry.value.echo}` : entry.problems[0].message;
};

describe('what a line records, and its echo', () => {
  test.each<[string, object, string, string[]?]>([
    ['soak 30', { kind: 'soak', act: 'start', minutes: 30 }, 'Soak of 30 min begins'],
    ['soak 1', { kind: 'soak', act: 'start', minutes: 1 }, 'Soak of 1 min begins'],
    ['soak 1440', { kind: 'soak', act: 'start', minutes: 1440 }, 'Soak of 1440 min begins'],
    ['soak restart', { kind: 'soak', act: 'restart' }, 'It restarted in the soak', ['soak 30']],
    ['soak off', { kind: 'soak', act: 'end' }, 'Soak ended', ['soak 30']],
    ['note Screws wrong', { kind: 'note', text: 'Screws wrong' }, 'Note kept with the job.'],
    [
      'promise 2026-12-01',
      { kind: 'promise', byAt: '2026-12-01T17:00:00.000+00:00' },
      'Promised for 2026-12-01, 17:00',
    ],
    ['promise off', { kind: 'promise', byAt: null }, 'Promise taken back'],
    [
      'awaits 2026-12-02 donor board',
      { kind: 'delivery', what: 'donor board', byAt: '2026-12-02T12:00:00.000+00:00' },
      'Waits for donor board, expected 2026-12-02',
    ],
    [
      'awaits HERE',
      { kind: 'delivery', what: 'donor board', byAt: null },
      'donor board is here',
      ['awaits 2026-12-02 donor board'],
    ],
    ['quote 0.01', { kind: 'quote', state: 'sent', price: 0.01 }, 'Quote of 0.01 sent'],
    ['quote 1000000', { kind: 'quote', state: 'sent', price: 1_000_000 }, 'Quote of 1000000 sent'],
    ['quote accepted', { kind: 'quote', state: 'accepted', price: 120 }, 'Quote accepted', ['quote 120']],
    ['quote refused', { kind: 'quote', state: 'refused', price: 120 }, 'Quote refused', ['quote 120']],
    ['quote expired', { kind: 'quote', state: 'expired', price: 120 }, 'Quote expired', ['quote 120']],
    ['open', { kind: 'access', access: 'open' }, 'The housing is open.'],
    ['out', { kind: 'access', access: 'out' }, 'The board is out of its frame.'],
    ['closed', { kind: 'access', access: 'closed' }, 'The housing is closed.', ['out']],
    ['restored', { kind: 'mended', what: 'software' }, 'What the device runs on is restored.'],
    ['pack in', { kind: 'pack', state: 'in' }, 'The pack is plugged in.'],
    ['pack out', { kind: 'pack', state: 'out' }, 'The pack is unplugged.'],
    ['off u4', { kind: 'partOff', ref: 'U4' }, 'U4 port controller is off the board: measure again.'],
    ['on u4', { kind: 'partOn', ref: 'U4', fresh: true }, 'A new U4 is on.', ['off u4']],
    ['on u4 same', { kind: 'partOn', ref: 'U4', fresh: false }, 'The same U4 is back on.', ['off u4']],
    ['touched u4', { kind: 'mended', what: 'U4/joints' }, 'The joints of U4 are touched up.'],
    ['cleaned j1', { kind: 'mended', what: 'J1/contacts' }, 'The contacts of J1 are cleaned.'],
    ['mended vbus', { kind: 'mended', what: 'VBUS' }, 'A wire is laid past the trace to VBUS.'],
    ['mended S1', { kind: 'mended', what: 'S1' }, 'The board is mended at screw S1.'],
  ])('%s', (line, recorded, echo, before = []) => {
    const entry = read(line, 'heron', before);
    expect(entry).toMatchObject({ ok: true, value: { command: { do: 'record' }, echo } });
    expect(entry.ok && entry.value.command.do === 'record' && entry.value.command.body).toEqual(recorded);
  });

  test('a lifted pad is judged in its echo; heights become the four corners of the body, in mm', () => {
    const lifted = read('lifted u4 none');
    expect(lifted.ok && lifted.value.echo).toMatch(/^U4: .+\.$/);
    const flat = read('flat u4 50 51 150 3000');
    const [w, h] = heron.packages[heron.parts.find((p) => p.ref === 'U4')!.package].bodyMm;
    expect(flat.ok && flat.value.command).toMatchObject({
      body: {
        kind: 'flatness',
        ref: 'U4',
        readings: [
          { xMm: -w / 2, yMm: -h / 2, heightMm: 0.05 },
          { xMm: w / 2, yMm: -h / 2, heightMm: 0.051 },
          { xMm: -w / 2, yMm: h / 2, heightMm: 0.15 },
          { xMm: w / 2, yMm: h / 2, heightMm: 3 },
        ],
      },
    });
    expect(read('flat u4 0 0 0 0').ok).toBe(true);
  });
});

const PART_AFTER = (head: string, got = ''): string => `Expected a part of this board after "${head}"; got "${got}".`;

describe('what a line is refused for', () => {
  test.each<[string, string]>([
    ['soak', 'Expected minutes, restart or off after "soak"; got "".'],
    ['soak 30 40', 'Expected minutes, restart or off after "soak"; got "30 40".'],
    ['soak x', 'Expected a number such as 0.4, 4.7k or 4k7; got "x".'],
    ['soak 0.5', 'Expected 1 to 1440 minutes; got 0.5.'],
    ['soak 1441', 'Expected 1 to 1440 minutes; got 1441.'],
    ['note', 'Expected words after "note".'],
    ['quote 1000001', 'Expected a price from 0.01 to 1,000,000; got 1000001.'],
    ['quote -1', 'Expected a price from 0.01 to 1,000,000; got -1.'],
    ['quote', 'Expected a price, accepted, refused or expired after "quote"; got "".'],
    ['promise 2026-12-01 9', 'Expected a day such as 2026-12-01 after "promise"; got "2026-12-01 9".'],
    ['promise on 2026-12-01', 'Expected a day such as 2026-12-01 after "promise"; got "on 2026-12-01".'],
    ['open it', 'Expected "open" alone; got "open it".'],
    ['closed x', 'Expected "closed" alone; got "closed x".'],
    ['restored x', 'Expected "restored" alone; got "restored x".'],
    ['pack', 'Expected in, out, or the connector’s voltage after "pack"; got "".'],
    ['pack in out', 'Expected in, out, or the connector’s voltage after "pack"; got "in out".'],
    ['off', PART_AFTER('off')],
    ['on', PART_AFTER('on')],
    ['on u4 old', 'Expected new or same after U4; got "old".'],
    ['touched', PART_AFTER('touched')],
    ['touched x', PART_AFTER('touched', 'x')],
    ['cleaned', 'Expected a connector of this board after "cleaned"; got "".'],
    ['cleaned u4', 'Expected a connector of this board after "cleaned"; got "u4".'],
    ['lifted', PART_AFTER('lifted')],
    ['lifted zz 1', PART_AFTER('lifted', 'zz')],
    ['lifted u4', 'Expected pads of U4 such as 1, 2, 3, or none; got "".'],
    ['lifted u4 1 999', 'Expected pads of U4 such as 1, 2, 3, or none; got "999".'],
    ['lifted u4 none 1', 'Expected pads of U4 such as 1, 2, 3, or none; got "NONE".'],
    ['flat', PART_AFTER('flat')],
    ['flat u4 1 2', 'Expected four heights in µm: top left, top right, bottom left, bottom right; got 2.'],
    ['flat u4 -1 0 0 0', 'Expected a height from 0 to 3000 µm; got "-1".'],
    ['flat u4 1 2 3001 4', 'Expected a height from 0 to 3000 µm; got "3001".'],
    ['flat u4 1 2 x 4', 'Expected a height from 0 to 3000 µm; got "x".'],
    ['fix off u4', 'Expected a reading after "fix", such as: fix c14 6.4.'],
    ['fix', 'Expected a point and a value, such as: tp7 1.8 ohm.'],
    ['fix tp7', 'Expected a value after the point: a number, ol, or beep.'],
  ])('%s', (line, sentence) => expect(refusal(line)).toBe(sentence));

  test('of a board with shields', () => {
    expect(refusal('shield', 'marsh')).toBe('Expected sh1 after "shield"; got "".');
    expect(refusal('shield sh1', 'marsh')).toBe('Expected off or on after SH1; got "".');
    expect(refusal('shield sh1 up', 'marsh')).toBe('Expected off or on after SH1; got "up".');
    expect(read('shield SH1 off', 'marsh')).toMatchObject({
      value: { command: { body: { kind: 'shield', id: 'SH1', off: true } }, echo: 'Shield SH1 is off.' },
    });
    expect(read('shield sh1 on', 'marsh', ['shield sh1 off'])).toMatchObject({
      value: { command: { body: { id: 'SH1', off: false } }, echo: 'Shield SH1 is on.' },
    });
  });
});

describe('what is offered after a line', () => {
  test.each<[string, string[], (keyof typeof BOARDS)?]>([
    ['re', ['restored']],
    ['soak ', ['30', 'off', 'restart']],
    ['soak 30 ', []],
    ['note a ', []],
    ['promise ', ['off']],
    ['promise off ', []],
    ['awaits ', ['here']],
    ['awaits here ', []],
    ['quote ', ['expired', 'refused', 'accepted']],
    ['quote accepted ', []],
    ['open ', []],
    ['restored ', []],
    ['pack ', ['in', 'out']],
    ['off u1', ['u10']],
    ['on u1', ['u10']],
    ['on u4 ', ['new', 'same']],
    ['touched u1', ['u10']],
    ['cleaned ', ['j1', 'j3'], 'heron'],
    ['shield ', ['sh1'], 'marsh'],
    ['shield sh1 ', ['on', 'off'], 'marsh'],
    ['mended ', ['s1', 's2', 's3', 'v5', 'v33', 'vin'], 'marsh'],
    ['lifted u1', ['u10']],
    ['lifted u4 ', ['none']],
    ['flat u1', ['u10']],
    ['why tou', ['touched']],
    ['why touched u1', ['u10']],
    ['fix tp', ['tp1', 'tp2', 'tp3', 'tp4', 'tp5', 'tp6']],
    ...['off u4 ', 'touched u1 ', 'cleaned j1 ', 'mended s1 ', 'lifted u4 1 ', 'flat u4 '].map(
      (text): [string, string[]] => [text, []],
    ),
  ])('"%s"', (text, words, board = 'heron') => {
    expect(completeEntry(BOARDS[board], after([], board), text)).toEqual(words);
  });
});

describe('questions', () => {
  const resistance = { do: 'weigh', measurement: { kind: 'groundResistance', net: 'AON33' } };
  const work = (target: string) => ({ do: 'weighWork', work: target });
  test.each<[string, object, string]>([
    ['why tp7', resistance, 'TP7 to ground, resistance'],
    ['WHY TP7 ohm', resistance, 'TP7 to ground, resistance'],
    [
      'why usb a',
      { do: 'weigh', measurement: { kind: 'usbMeter', port: 'J1', side: 'A' } },
      'Meter in line, plugged A way',
    ],
    [
      'why look j1',
      { do: 'weigh', measurement: { kind: 'visualInspection', ref: 'J1' } },
      'Look into port J1 with magnification',
    ],
    ['why replace u4', work('U4'), 'Replace U4'],
    ['why on u4 new', work('U4'), 'Replace U4'],
    ['why touched u4', work('U4/joints'), 'Touch up the joints of U4'],
    ['why mended vbus', work('VBUS'), 'Lay a wire past the trace to VBUS'],
    ['why restored', work('software'), 'Restore what the device runs on; its data may be lost'],
  ])('%s', (line, command, name) => {
    expect(read(line)).toMatchObject({
      ok: true,
      value: { command, echo: `Weighs it against what is proposed: ${name}` },
    });
    expect(isQuestion(line)).toBe(true);
  });

  test.each(['why', 'why tp99', 'why off u4', 'why on u4 same', 'why replace', 'why note x', 'why soak 30'])(
    '%s asks nothing',
    (line) => {
      const got = line.slice('why'.length).trim();
      expect(refusal(line)).toBe(
        `Expected a test or work on this board after "why", such as: why tp7, or: why replace u4; got "${got}".`,
      );
    },
  );

  test('a line that keeps something is no question', () => {
    expect(['tp7 1.8', 'note why not', 'whyever', ''].map(isQuestion)).toEqual([false, false, false, false]);
  });
});

test('every example of the help begins with a word of its command, and says what it is for', () => {
  const forms = JOB_GRAMMAR.commands.flatMap((c) => c.usage.map((form) => ({ ...form, command: c })));
  expect(forms.filter(({ help }) => help === '')).toEqual([]);
  const byWord = forms.filter(({ command }) => !command.matches);
  expect(byWord.length).toBeGreaterThan(20);
  for (const { command, example } of byWord)
    expect([command.name, ...(command.aliases ?? [])]).toContain(example.split(' ')[0]);
});
