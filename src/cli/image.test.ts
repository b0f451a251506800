import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { cli } from './tests/run-cli';

const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-cli-'));
const at = (name: string): string => path.join(folder, name);
const FAMILY = 'demo/families/heron-pd.json';
const [PATIENT, DONOR] = ['demo/images/heronlog-patient-damaged.bin', 'demo/images/heronlog-known-good.bin'];

test('a dump told: format, hash, and what is wrong with it', async () => {
  const sound = JSON.parse((await cli('image', 'info', DONOR, '--family', FAMILY, '--position', '1')).out);
  expect(sound).toMatchObject({
    format: 'raw',
    sound: true,
    signs: [],
    sha256: expect.stringMatching(/^[0-9a-f]{64}$/),
  });
  const wrong = JSON.parse((await cli('image', 'info', DONOR, '--family', FAMILY, '--position', '0')).out);
  expect(wrong.signs).toMatchObject([{ kind: 'otherPosition' }]);
});

test('raw to Intel HEX to S-records and back is the same dump, verified', async () => {
  expect((await cli('image', 'convert', DONOR, at('a.hex'), '--to', 'intel-hex', '--line', '32')).code).toBe(0);
  expect((await cli('image', 'convert', at('a.hex'), at('a.s19'), '--to', 's-record')).code).toBe(0);
  expect((await cli('image', 'convert', at('a.s19'), at('a.bin'), '--to', 'raw')).code).toBe(0);
  expect(JSON.parse((await cli('image', 'verify', DONOR, at('a.bin'))).out).verified).toBe(true);
  expect(readFileSync(at('a.hex'), 'latin1').split('\n')[0]).toHaveLength(11 + 64);
});

test('the checksum of the code is found in two units’ dumps by its value', async () => {
  const { out } = await cli('image', 'checksum-find', PATIENT, DONOR, '--algorithm', 'CRC-32/ISO-HDLC');
  const { claims } = JSON.parse(out);
  // The patient's first copy is damaged, so only what holds in both is claimed: the sum of the second copy.
  expect(claims.length).toBeGreaterThan(0);
  expect(claims[0]).toMatchObject({ algorithm: 'CRC-32/ISO-HDLC', from: 0x6000, to: 0xbffc });
});

test('an unknown image is mapped: its erased parts, its code, the checksum that was found', async () => {
  const map = JSON.parse((await cli('image', 'map', DONOR)).out) as { kind: string; offset: number }[];
  expect(new Set(map.map((s) => s.kind))).toContain('erased');
  expect(map.find((s) => s.offset === 0x100 || s.offset === 0)!.kind).toBe('code');
});

test('several dumps are compared with the first by what their regions mean', async () => {
  const side = 'demo/images/heronlog-side-position.bin';
  const { images, against } = JSON.parse((await cli('image', 'compare', FAMILY, DONOR, PATIENT, side)).out);
  expect(images.map((i: { sound: boolean }) => i.sound)).toEqual([true, false, true]);
  const words = (k: number, name: string): string =>
    against[k].regions.find((r: { region: string }) => r.region === name).words;
  expect([words(0, 'code'), words(1, 'code'), words(1, 'settings')]).toEqual([
    'code differs: another version, or damage',
    'the same',
    'position 1 → 2',
  ]);
});

test('a transplant keeps the patient’s identity, tells every byte’s origin, and refuses to copy an identity', async () => {
  const transplant = (out: string, ...more: string[]) =>
    cli('image', 'transplant', FAMILY, PATIENT, at(out), '--donor', DONOR, ...more);
  const made = JSON.parse((await transplant('new.bin', '--rule', 'code=donor', '--set', 'charge limit=2000')).out);
  expect(made).toMatchObject({ sound: true, advice: 'The patient’s own copy mends header, code' });
  expect(made.audit).toContainEqual({ offset: 0xc010, length: 2, from: 'set', region: 'settings, charge limit' });
  expect(made.audit.reduce((sum: number, run: { length: number }) => sum + run.length, 0)).toBe(
    readFileSync(DONOR).length,
  );
  const refused = await transplant('x.bin', '--rule', 'unit identity=donor');
  expect([refused.code, refused.err]).toEqual([2, expect.stringContaining('identity of one unit')]);
  const named = await transplant('x.bin', '--rule', 'unit identity=donor', '--identity-reason', 'sameUnit');
  expect(named.code).toBe(0);
});

test.each([
  [['image', 'convert', DONOR, at('x'), '--to', 'elf'], 'Expected raw, intel-hex or s-record; got elf.'],
  [['image', 'convert', DONOR, at('x'), '--to', 's-record', '--line', '0'], 'got 0'],
  [['image', 'verify', PATIENT, DONOR], 'Expected the same bytes;'],
  [['image', 'checksum-find', DONOR, '--algorithm', 'CRC-99'], 'got CRC-99'],
  [['image', 'checksum-find', DONOR, '--alignment', '48'], 'got 48'],
  [['image', 'transplant', FAMILY, PATIENT, at('x'), '--rule', 'nothing=donor'], 'got nothing=donor'],
  [['image', 'transplant', FAMILY, PATIENT, at('x'), '--set', 'position=first'], 'got position=first'],
  [['image', 'transplant', FAMILY, PATIENT, at('x'), '--set', 'position=2', '--position', '1'], 'Expected position 1'],
  [['image', 'transplant', FAMILY, PATIENT, at('x'), '--identity-reason', 'because'], 'got because'],
  [['image', 'compare', FAMILY, PATIENT], 'Expected two to 8 dumps; got 1.'],
])('%p is refused with what was expected', async (args, words) => {
  const { code, err } = await cli(...args);
  expect(code).toBe(2);
  expect(err).toContain(words);
});

test('a broken record file is named with its line and field', async () => {
  writeFileSync(at('bad.hex'), ':0100000001FF\n:00000001FF\n');
  const { code, err } = await cli('image', 'info', at('bad.hex'));
  expect(code).toBe(2);
  expect(err).toContain('bad.hex, line 1, checksum: Expected FE; got FF.');
});
