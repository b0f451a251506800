import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { cli } from './tests/run-cli';

const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-cli-'));
const HERON = 'demo/boards/heronlog-4-c.json';

test('a picture from the simulated microscope is looked over again from its file', async () => {
  const [sound, worn] = ['sound', 'worn'].map((s) => path.join(folder, `${s}.png`));
  expect((await cli('balls', 'picture', HERON, 'U8', sound, '--specimen', 'sound')).code).toBe(0);
  expect((await cli('balls', 'picture', HERON, 'U8', worn, '--specimen', 'worn', '--seed', '34')).code).toBe(0);
  const good = JSON.parse((await cli('balls', 'inspect', HERON, 'U8', sound)).out);
  expect(good).toMatchObject({ part: 'U8', asItIs: true, bridges: [] });
  expect(good.balls).toHaveLength(100);
  const rows = (await cli('balls', 'inspect', HERON, 'U8', sound, '--rows')).out.trim().split('\n');
  expect(rows).toHaveLength(100);
  expect(JSON.parse(rows[0])).toMatchObject({
    state: 'good',
    bridged: false,
    diameterMm: expect.any(Number),
    diameterSdMm: expect.any(Number),
  });
  const bad = JSON.parse((await cli('balls', 'inspect', HERON, 'U8', worn)).out);
  expect(bad.asItIs).toBe(false);
  expect(bad.reasons.length).toBeGreaterThan(0);
});

test('the pads of a cleaned site from a picture, of any part @long', async () => {
  const file = path.join(folder, 'site.png');
  expect((await cli('balls', 'picture', HERON, 'U4', file, '--specimen', 'worn', '--site')).code).toBe(0);
  const look = JSON.parse((await cli('balls', 'pads', HERON, 'U4', file)).out);
  expect(look.pads).toHaveLength(41);
  expect((await cli('balls', 'pads', HERON, 'U4', file, '--rows')).out.trim().split('\n')).toHaveLength(41);
  expect(look.holds).toBe(false);
  expect((await cli('balls', 'pads', HERON, 'U8', file)).err).toContain('Expected a picture of the 100 pads of U8');
});

test('sites, lifted pads, clearing and mixtures from the command line', async () => {
  const site = JSON.parse((await cli('balls', 'site', HERON, 'u4', '--lifted', '1,ep')).out);
  expect(site).toMatchObject({ kind: 'leadless', joints: 41, lifted: { pads: [{ pin: '1' }, { pin: 'EP' }] } });
  const clear = JSON.parse((await cli('balls', 'clear', HERON, 'U4', '--underfill', 'hard')).out);
  expect(clear.soften.steps).toHaveLength(8);
  const mixed = JSON.parse((await cli('balls', 'mix', 'Sn63Pb37=1', 'Sn42Bi58=1')).out);
  expect(mixed.warnings[0]).toContain('96 °C');
});

test.each([
  [['balls', 'inspect', HERON, 'U4', 'x.png'], 'Expected a part with balls'],
  [['balls', 'inspect', HERON, 'U8', 'none.png'], 'Expected a file that can be read'],
  [['balls', 'site', HERON, 'U99'], 'Expected a part of heronlog-4-c'],
  [['balls', 'site', HERON, 'U4', '--lifted', 'Z1'], 'got Z1'],
  [['balls', 'clear', HERON, 'U4', '--underfill', 'glue'], 'got glue'],
  [['balls', 'mix', 'Sn63Pb37'], 'Expected an alloy and mm³'],
  [['balls', 'picture', HERON, 'U8', 'x.png', '--specimen', 'odd'], 'got odd'],
])('%p is refused with what was expected', async (args, words) => {
  const { code, err } = await cli(...args);
  expect(code).toBe(2);
  expect(err).toContain(words);
});

test('a file that is no picture, and a picture of something else', async () => {
  const text = path.join(folder, 'text.png');
  writeFileSync(text, 'not a picture');
  expect((await cli('balls', 'inspect', HERON, 'U8', text)).err).toContain('neither, or broken');
  const { code, err } = await cli('balls', 'inspect', HERON, 'U8', 'docs/screenshots/bench.png');
  expect(code).toBe(2);
  expect(err).toContain('the pattern was not found');
});
