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
  // The patient's code is damaged, so only what holds in both is claimed: its settings' sum, not its code's.
  expect(claims.length).toBeGreaterThan(0);
  expect(claims[0]).toMatchObject({ algorithm: 'CRC-32/ISO-HDLC' });
});

test('an unknown image is mapped: its erased parts, its code, the checksum that was found', async () => {
  const map = JSON.parse((await cli('image', 'map', DONOR)).out) as { kind: string; offset: number }[];
  expect(new Set(map.map((s) => s.kind))).toContain('erased');
  expect(map.find((s) => s.offset === 0x100 || s.offset === 0)!.kind).toBe('code');
});

test('a transplant keeps the patient’s identity, tells every byte’s origin, and refuses to copy an identity', async () => {
  const made = JSON.parse((await cli('image', 'transplant', FAMILY, PATIENT, DONOR, at('new.bin'))).out);
  expect(made.sound).toBe(true);
  expect(made.audit.reduce((sum: number, run: { length: number }) => sum + run.length, 0)).toBe(
    readFileSync(DONOR).length,
  );
  const refused = await cli(
    'image',
    'transplant',
    FAMILY,
    PATIENT,
    DONOR,
    at('x.bin'),
    '--rule',
    'unit identity=donor',
  );
  expect([refused.code, refused.err]).toEqual([2, expect.stringContaining('identity of one unit')]);
});

test.each([
  [['image', 'convert', DONOR, at('x'), '--to', 'elf'], 'Expected raw, intel-hex or s-record; got elf.'],
  [['image', 'convert', DONOR, at('x'), '--to', 's-record', '--line', '0'], 'got 0'],
  [['image', 'verify', PATIENT, DONOR], 'Expected the same bytes;'],
  [['image', 'checksum-find', DONOR, '--algorithm', 'CRC-99'], 'got CRC-99'],
  [['image', 'checksum-find', DONOR, '--alignment', '48'], 'got 48'],
  [['image', 'transplant', FAMILY, PATIENT, DONOR, at('x'), '--rule', 'nothing=donor'], 'got nothing=donor'],
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
