import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { FORMATS, jsonSchemaOf } from './formats';
import { run } from './main';

const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-cli-'));
const HERON = 'demo/boards/heronlog-4-c.json';

function file(name: string, content: unknown): string {
  const at = path.join(folder, name);
  writeFileSync(at, typeof content === 'string' ? content : JSON.stringify(content));
  return at;
}

async function cli(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  let out = '';
  let err = '';
  const stdout = jest.spyOn(process.stdout, 'write').mockImplementation((text) => ((out += text), true));
  const stderr = jest.spyOn(process.stderr, 'write').mockImplementation((text) => ((err += text), true));
  try {
    return { code: await run(args), out, err };
  } finally {
    stdout.mockRestore();
    stderr.mockRestore();
  }
}

const json = async (...args: string[]) => {
  const { out, code } = await cli(...args);
  expect(code).toBe(0);
  return JSON.parse(out);
};

const SHORT = { readings: [{ measurement: { kind: 'ohm', net: 'AON33' }, value: { kind: 'figure', value: 1.5 } }] };

test('heat simulate aims a starting plan at a part and judges it', async () => {
  const answer = await json('heat', 'simulate', HERON, '--part', 'u2', '--curves');
  expect(answer.verdict.headline).toMatch(/^Lift U2 at \d+ s, not before$/);
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

test('image compare', async () => {
  const { regions, a, b } = await json(
    'image',
    'compare',
    'demo/families/heron-pd.json',
    'demo/images/heronlog-patient-damaged.bin',
    'demo/images/heronlog-known-good.bin',
  );
  expect([a.sound, b.sound]).toEqual([false, true]);
  expect(regions.find((r: { region: string }) => r.region === 'code').differingBytes).toBeGreaterThan(600);
});

test('proof rails', async () => {
  const answer = await json('proof', 'rails', HERON, file('volts.json', { VBUS: 15, VBUS_F: 15, AON33: 0 }));
  expect(answer.failures[0]).toMatchObject({ rail: 'AON33', lastGood: 'VBUS_F' });
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
    /VBUS: Invalid input: expected number, received string/,
  ],
  [
    'a rail that is not there',
    ['proof', 'rails', HERON, file('norail.json', { VNONE: 5 })],
    /expected rails of heronlog-4-c; got "VNONE"/,
  ],
  ['a part that is not there', ['heat', 'simulate', HERON, '--part', 'U99'], /got "U99"/],
  [
    'a net that is not there',
    [
      'diagnose',
      'rank',
      HERON,
      file('nonet.json', { readings: [{ measurement: { kind: 'ohm', net: 'X' }, value: { kind: 'open' } }] }),
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
