import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { seededRandom } from '../core/math';
import { simulateTrace } from '../core/trace';
import { captureCsv, conversation, edgesOf, OFFERS_65W } from '../core/usb';
import { FORMATS, jsonSchemaOf } from './formats';
import { entryLinePage } from './entry-line-page';
import { cli } from './tests/run-cli';

const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-cli-'));
const HERON = 'demo/boards/heronlog-4-c.json';

function file(name: string, content: unknown): string {
  const at = path.join(folder, name);
  writeFileSync(at, typeof content === 'string' ? content : JSON.stringify(content));
  return at;
}

const json = async (...args: string[]) => {
  const { out, code } = await cli(...args);
  expect(code).toBe(0);
  return JSON.parse(out);
};

const SHORT = {
  readings: [{ measurement: { kind: 'groundResistance', net: 'AON33' }, value: { kind: 'figure', value: 1.5 } }],
};

const MELT = {
  kind: 'melt',
  setC: 350,
  flowLpm: 30,
  nozzleMm: 6,
  heightMm: 12,
  ambientC: 22,
  alloyC: 183,
  seconds: 26,
};

test('heat simulate aims a starting plan at a part and judges it', async () => {
  const answer = await json('heat', 'simulate', HERON, '--part', 'u2', '--curves');
  expect(answer.verdict.headline).toMatch(/^Lift U2 at \d+ s, /);
  expect(answer.energyError).toBeLessThan(0.005);
  expect(answer.curves.timesS.length).toBeGreaterThan(60);
});

test('diagnose rank and next', async () => {
  const readings = file('short.json', SHORT);
  const { suspects } = await json('diagnose', 'rank', HERON, readings);
  expect(suspects[0].ref).toBe('U4');
  const { tests } = await json('diagnose', 'next', HERON, readings);
  expect(tests[0].bits / tests[0].minutes).toBeGreaterThanOrEqual(tests[1].bits / tests[1].minutes);
});

test('heat simulate runs a plan for another purpose; an unknown one is refused', async () => {
  const answer = (await json('heat', 'simulate', HERON, '--part', 'u8', '--for', 'soften')) as {
    plan: { purpose: string };
    verdict: { headline: string };
  };
  expect(answer.plan.purpose).toBe('soften');
  expect(answer.verdict.headline).toMatch(/^Clear the edges of U8 from /);
  const upper = (await json('heat', 'simulate', HERON, '--part', 'u8', '--for', 'partBoards')) as typeof answer;
  expect(upper.verdict.headline).toMatch(/^Lift the upper board at /);
  expect((await cli('heat', 'simulate', HERON, '--part', 'u8', '--for', 'toast')).err).toMatch(
    /^Expected --for with one of lift, place/,
  );
});

test('heat translate says what was assumed and how near it comes; heat search finds a plan', async () => {
  const answer = await json('heat', 'translate', HERON, '350 at 80 %, 8 mm, 40 s', '--part', 'u9');
  expect(answer.assumed).toEqual(['the same nozzle']);
  expect(answer.rmsK).toBeLessThan(5);
  expect((await cli('heat', 'translate', HERON, 'hot', '--part', 'u9')).err).toMatch(/^Expected settings such as/);
  expect((await cli('heat', 'search', HERON, '--part', 'u99')).err).toMatch(/^Expected --part/);
});

test('parts fit judges every type at a place, with the reports', async () => {
  const { built, fits } = await json(
    'parts',
    'fit',
    'demo/boards/marshdesk-2-b.json',
    'demo/parts/part-types.json',
    '--place',
    'u12',
    '--reports',
    'demo/parts/reports.json',
  );
  const verdicts = Object.fromEntries(fits.map((f: { type: string; verdict: string }) => [f.type, f.verdict]));
  expect(built).toBe('marsh-pd-r1');
  expect(verdicts).toMatchObject({
    'marsh-pd-r1': 'fits',
    'marsh-pd-r2': 'fitsAfter',
    'marsh-pd-r3f': 'notTried',
    'marsh-pd-r4p': 'doesNotFit',
    'rill-pd-r1': 'doesNotFit',
  });
  expect((await cli('parts', 'fit', HERON, 'demo/parts/part-types.json', '--place', 'c14')).err).toMatch(
    /^Expected a place whose part type matters on heronlog-4-c \(U4, .*\); got "c14"\./,
  );
});

test('parts straps reads a divider and designs one', async () => {
  expect(await json('parts', 'straps', '--bins', '8', '--read', '47000,33000')).toMatchObject({ bin: 3, sure: true });
  expect(await json('parts', 'straps', '--bins', '8', '--bin', '2', '--series', 'E96')).toMatchObject({
    bin: 2,
    sure: true,
  });
  expect((await cli('parts', 'straps', '--bins', '8', '--read', 'x')).err).toMatch(/^Expected two resistances/);
  expect((await cli('parts', 'straps', '--bins', '8', '--bin', '2', '--series', 'E7')).err).toMatch(
    /^Expected one of E6/,
  );
  expect((await cli('parts', 'straps', '--bins', '8')).err).toMatch(/^Expected --read or --bin/);
});

test('parts plan opens the donor that serves both', async () => {
  const problem = {
    needs: [1, 2].map((job) => ({ id: `n${job}`, job, words: '' })),
    supplies: [
      { id: 'd', words: '', count: 2, donor: 'D-1' },
      { id: 'buy', words: '' },
    ],
    donors: [{ id: 'D-1', words: '', cost: 30 }],
    options: [1, 2].flatMap((job) => [
      { need: `n${job}`, supply: 'd', cost: 5, chance: 0.9 },
      { need: `n${job}`, supply: 'buy', cost: 25, chance: 0.9 },
    ]),
  };
  const plan = await json('parts', 'plan', file('queue.json', problem));
  expect(plan).toMatchObject({ open: ['D-1'], cost: 40, unmet: [], jobByJob: { cost: 50, unmet: 0 } });
  expect((await cli('parts', 'plan', file('bad.json', { needs: 3 }))).code).toBe(2);
});

test('proof rails', async () => {
  const answer = await json('proof', 'rails', HERON, file('volts.json', { VBUS: 15, VBUS_F: 15, AON33: 0 }));
  expect(answer.failures[0]).toMatchObject({ rail: 'AON33', lastGood: 'VBUS_F' });
});

test('proof order: a likely fault is tried first; unknown parts are refused', async () => {
  const { tests, expectedMinutes } = await json('proof', 'order', HERON, file('risk.json', { U7: 0.4 }));
  expect(tests[0]).toMatchObject({ id: 'sensor-supply', implicates: [{ ref: 'U7' }] });
  expect(expectedMinutes).toBeGreaterThan(0);
  const { code, err } = await cli('proof', 'order', HERON, file('risk.json', { U77: 0.4 }));
  expect([code, err]).toEqual([2, expect.stringContaining('got "U77"')]);
});

test('a report from a job’s events, notes only where they are asked for', async () => {
  const meta = { at: '2026-11-24T08:00:00.000Z', bench: 'Bench 1', actor: 'Bench lead' };
  const story = { symptom: 'dead', history: [], dataMatters: false, locked: false, consent: true, pack: 'sound' };
  const events = [
    { seq: 1, ...meta, body: { kind: 'story', ...story } },
    { seq: 2, ...meta, body: { kind: 'note', text: 'door code 555' } },
  ];
  const plain = await json('report', HERON, file('events.json', events), '--job', '7');
  expect(plain).toMatchObject({ title: 'Repair report, job 0007', outcome: 'Open', symptom: 'dead' });
  expect(JSON.stringify(plain)).not.toContain('555');
  const told = await json('report', HERON, file('events.json', events), '--private');
  expect(told.notes).toEqual(['door code 555']);
  expect((await cli('report', HERON, file('events.json', []))).code).toBe(2);
});

describe('board', () => {
  test('a netlist of a board comes back as a draft that says what is missing', async () => {
    const { out, code } = await cli('board', 'netlist', HERON);
    expect(code).toBe(0);
    const { board, missing } = await json('board', 'draft', file('heron.ipc', out), '--id', 'heron-draft');
    expect(board.id).toBe('heron-draft');
    expect(board.parts.length).toBe(80);
    expect(missing[0]).toBe('Name the device, the board and its revision.');
  });

  test('a malformed netlist is named by file and line', async () => {
    const { code, err } = await cli('board', 'draft', file('odd.ipc', 'rubbish\n'));
    expect(code).toBe(2);
    expect(err).toMatch(/odd\.ipc line 1: expected a record of IPC-D-356; got "rubbish"/);
  });
});

describe('usb', () => {
  const capture = (trouble: 'none' | 'noAnswer'): string => {
    const packets = conversation({ trouble, offers: OFFERS_65W, want: 3, wantMa: 2000 });
    return file(`${trouble}.csv`, captureCsv(edgesOf(packets, { seed: 2 }), 'CC2', 4e6));
  };
  const meter = (): string => {
    const trace = simulateTrace([{ name: 'noTalk', durationS: 20, volts: 5.02, amps: [0.01, 0.01] }], seededRandom(3));
    return file(
      'meter.csv',
      ['t [s],U [V],I [A]', ...[...trace.timesS].map((t, i) => `${t},${trace.volts[i]},${trace.amps[i]}`)].join('\n'),
    );
  };

  test('decode reads hex words', async () => {
    const { objects } = await json('usb', 'decode', '0001912c,000641f4');
    expect(objects.map((o: { words: string }) => o.words)).toEqual(['5 V 3 A', '20 V 5 A']);
  });

  test('decode reads a capture and says where it stopped on this board', async () => {
    const good = await json('usb', 'decode', capture('none'), '--board', HERON);
    expect(good).toMatchObject({ line: 'CC2', stop: 'contract' });
    const silent = await json('usb', 'decode', capture('noAnswer'), '--board', HERON, '--port', 'j1');
    expect(silent.headline).toBe('Offers go unanswered');
    expect(silent.implicated[0].ref).toBe('U4');
  });

  test('decode reads a conversation noted as hex, one message a line', async () => {
    const packets = conversation({ trouble: 'refused', offers: OFFERS_65W, want: 3, wantMa: 2000 });
    const noted = packets
      .map(
        (p) =>
          `${(p.atS * 1000).toFixed(2)}ms ${Array.from(p.bytes, (b) => b.toString(16).padStart(2, '0')).join(' ')}`,
      )
      .join('\n');
    const read = await json('usb', 'decode', file('noted.hex', noted), '--board', HERON);
    expect(read).toMatchObject({ stop: 'refused', headline: 'The request is refused' });
    expect(read.messages).toHaveLength(packets.length);
  });

  test('trace names its segments, expect gives the window', async () => {
    const { segments, expected } = await json('usb', 'trace', HERON, meter());
    expect(segments).toMatchObject([{ name: 'noTalk', words: 'five volts, no conversation' }]);
    expect(await json('usb', 'expect', HERON)).toEqual(expected);
    expect((await json('usb', 'expect', HERON, '--charger', 'small')).volts).toBe(5);
  });

  test.each<[string, () => string[], RegExp]>([
    [
      'a capture that is none',
      () => ['usb', 'decode', file('words.csv', 'hello\n')],
      /Expected rows of time and levels/,
    ],
    ['hex that is none', () => ['usb', 'decode', file('odd.hex', 'ff zz\n')], /line 1: expected hex; got "zz"/],
    ['a missing capture', () => ['usb', 'decode', 'nowhere.csv'], /nowhere\.csv: ENOENT/],
    ['an unknown port', () => ['usb', 'expect', HERON, '--port', 'J9'], /Expected one of the ports J1; got "J9"/],
    ['an unknown charger', () => ['usb', 'expect', HERON, '--charger', 'huge'], /Expected a charger: .*; got "huge"/],
    [
      'an unknown pack state',
      () => ['usb', 'expect', HERON, '--pack', 'wet'],
      /Expected a pack state: partly, flat, full, out; got "wet"/,
    ],
    [
      'a meter file without figures',
      () => ['usb', 'trace', HERON, file('none.csv', 'a,b\n')],
      /Expected rows of two or more columns with figures/,
    ],
  ])('%s ends with exit code 2 and a sentence', async (_, args, words) => {
    const { code, err } = await cli(...args());
    expect(code).toBe(2);
    expect(err).toMatch(words);
  });
});

test('heat calibrate prints the parameters with their doubt and the trial that would help most', async () => {
  const times = { 350: [16, 26, 44], 400: [13, 20, 30] };
  const melts = Object.entries(times).flatMap(([setC, seconds]) =>
    seconds.map((s, i) => ({ ...MELT, setC: Number(setC), alloyC: [138, 183, 217][i], seconds: s })),
  );
  const lowest = { ...MELT, kind: 'threshold', alloyC: 183, setC: 250 };
  const found = (await json('heat', 'calibrate', file('melts.json', [lowest, ...melts]))) as {
    outletEfficiency: { value: number; sd: number };
    next: string;
  };
  expect(found.outletEfficiency.value).toBeGreaterThan(0.6);
  expect(found.outletEfficiency.sd).toBeGreaterThan(0);
  expect(found.next).toMatch(/^(find|time) the/);
});

test('heat simulate prints the curves of parts and named points as CSV; heat body those of a plain plate', async () => {
  const { out, code } = await cli('heat', 'simulate', HERON, '--part', 'u4', '--csv', '--point', 'far,55,5');
  expect(code).toBe(0);
  const [heads, first, ...rows] = out.trim().split('\n');
  expect(heads).toContain('time_s,"far, °C","');
  expect(heads).toContain('"U4 coldest joint, °C"');
  expect(
    first
      .split(',')
      .slice(1)
      .every((t) => t === '22.000'),
  ).toBe(true);
  expect(rows.length).toBeGreaterThan(100);
  expect((await cli('heat', 'simulate', HERON, '--part', 'u4', '--point', 'far')).err).toMatch(/^Expected --point as/);
  expect((await cli('heat', 'simulate', HERON, '--part', 'u4', '--point', 'off,500,5')).err).toMatch(
    /^Expected a point on/,
  );
  const body = file(
    'body.json',
    JSON.parse(readFileSync('src/core/heat/tests/finite-elements/thin-small-parts.json', 'utf8')).body,
  );
  const run = await json('heat', 'body', body);
  expect(run.timesS).toHaveLength(61);
  expect(run.columns.map((c: { name: string }) => c.name)).toContain('fuse middle');
  expect((await cli('heat', 'body', body, '--csv')).out.split('\n')[0]).toMatch(/^time_s,"worked coldest, °C"/);
});

test('heat calibrate with a board and a plan gives the range of its peak; one of them alone is refused', async () => {
  const { plan } = await json('heat', 'simulate', HERON, '--part', 'u4');
  const planFile = file('plan.json', plan);
  const curve = Array.from({ length: 61 }, (_, s) => 22 + 190 * (1 - Math.exp(-s / 30)));
  const log = {
    kind: 'log',
    setC: 350,
    flowLpm: 30,
    nozzleMm: 6,
    heightMm: 12,
    ambientC: 22,
    probes: [{ place: 'slug', readC: curve }],
  };
  const fixed = { kind: 'fixedPoint', trueC: 100, readC: 99.6, ambientC: 22 };
  const trials = file('log.json', [log, fixed]);
  const found = await json('heat', 'calibrate', trials, '--board', HERON, '--plan', planFile);
  expect(found.covariance).toHaveLength(6);
  expect(found.fit).toMatchObject({ holds: expect.any(Boolean), chance: expect.any(Number) });
  expect(found.peak.low95C).toBeLessThan(found.peak.peakC);
  expect(found.peak.high95C).toBeGreaterThan(found.peak.peakC);
  expect((await cli('heat', 'calibrate', trials, '--plan', planFile)).err).toMatch(
    /^Expected --board and --plan together/,
  );
});

test('schema', async () => {
  expect(await json('schema', 'board')).toEqual(jsonSchemaOf('board'));
});

test.each<[string, string[], RegExp]>([
  [
    'a missing file',
    ['diagnose', 'rank', 'nowhere.json', 'x.json'],
    /Expected a file that can be read; nowhere\.json: ENOENT/,
  ],
  [
    'a malformed board',
    ['heat', 'simulate', file('bad.json', '{ "format": 1 }'), '--part', 'U4'],
    /format: Invalid input/,
  ],
  [
    'letters where a number belongs',
    ['proof', 'rails', HERON, file('letters.json', { VBUS: 'high' })],
    /VBUS\.volts: Invalid input: expected number, received string/,
  ],
  [
    'a rail that is not there',
    ['proof', 'rails', HERON, file('norail.json', { VNONE: 5 })],
    /expected rails of heronlog-4-c; got "VNONE"/,
  ],
  ['a part that is not there', ['heat', 'simulate', HERON, '--part', 'U99'], /got "U99"/],
  [
    'a trial that makes no sense',
    ['heat', 'calibrate', file('trials.json', [{ kind: 'melt', setC: 900 }])],
    /0\.setC: expected a set point from 100 to 500 °C/,
  ],
  [
    'trials that cannot tell',
    ['heat', 'calibrate', file('one.json', [MELT])],
    /tell a hot outlet from a strong jet; got one set point and 1 observation/,
  ],
  [
    'a net that is not there',
    [
      'diagnose',
      'rank',
      HERON,
      file('nonet.json', {
        readings: [{ measurement: { kind: 'groundResistance', net: 'X' }, value: { kind: 'open' } }],
      }),
    ],
    /readings\.0: Expected a net of this board; got "X"/,
  ],
  [
    'a dump of another size',
    ['image', 'compare', 'demo/families/heron-pd.json', file('tiny.bin', 'abc'), file('tiny.bin', 'abc')],
    /expected 65536 bytes for Heron port image; got 3/,
  ],
  ['an unknown format', ['schema', 'nothing'], /Expected one of board, reading/],
  ['an unknown command', ['melt'], /unknown command/],
])('%s ends with exit code 2 and a sentence', async (_, args, words) => {
  const { code, err, out } = await cli(...args);
  expect(code).toBe(2);
  expect(err).toMatch(words);
  expect(out).toBe('');
});

test.each(Object.keys(FORMATS) as (keyof typeof FORMATS)[])(
  'the published schema of %s is the one that checks',
  (name) => {
    const published = JSON.parse(readFileSync(path.resolve('docs/formats', `${name}.schema.json`), 'utf8'));
    expect(published).toEqual(JSON.parse(JSON.stringify(jsonSchemaOf(name))));
  },
);

test('the page of the entry lines is the one that the grammars write', () => {
  expect(readFileSync(path.resolve('docs/entry-line.md'), 'utf8')).toBe(entryLinePage());
});
