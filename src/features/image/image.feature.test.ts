import { demoBench } from '../tests/demo-bench';
import { demoDump } from '../../../demo/files';
import { proposeRules, sha256Hex } from '@/core/image';
import type { Database } from '@/db/client';
import { listImages } from '@/db/images';
import { jobEventsOf } from '@/db/jobs';
import { loadJob } from '../job/queries';
import { buildMerged, keepDump, keepOriginal, markWritten, takeKept } from './actions';
import { loadImageBench, loadImageBytes } from './queries';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));

let db: Database;
let remove: () => void;
beforeAll(async () => ({ db, remove } = await demoBench()));
afterAll(() => remove());

const form = (name: string, bytes: Uint8Array): FormData => {
  const data = new FormData();
  data.set('dump', new File([Uint8Array.from(bytes)], name));
  return data;
};
const donorSha = (): string => sha256Hex(demoDump('marshdesk-known-good.bin'));
const bench = async () => loadImageBench((await loadJob(29))!);

test('the patient’s dump is judged and nothing is compared before there is a donor', async () => {
  const { roles, differences, overview, family } = await bench();
  expect(family!.id).toBe('marsh-pd3');
  expect(roles.patient!.verdict.sound).toBe(false);
  expect(differences).toEqual([]);
  expect(overview.length).toBe(192);
});

test('a dump of the wrong size or no file at all is refused, and nothing is kept', async () => {
  const before = [(await listImages(db, 'marsh-pd3')).length, (await jobEventsOf(db, 29)).length];
  expect(await keepDump(29, 'donor', form('small.bin', new Uint8Array(100)))).toEqual({
    kept: false,
    words: 'Expected a raw dump of 131,072 bytes for Marsh three-port image; got 100. Nothing was kept.',
  });
  expect(await keepDump(29, 'donor', new FormData())).toEqual({ kept: false, words: 'Expected a file; got none.' });
  expect(await takeKept(29, 'donor', 'f'.repeat(64), 'ghost')).toMatchObject({ kept: false });
  expect([(await listImages(db, 'marsh-pd3')).length, (await jobEventsOf(db, 29)).length]).toEqual(before);
});

test('a donor by file is the same image as the kept one', async () => {
  expect(await keepDump(29, 'donor', form('read-again.bin', demoDump('marshdesk-known-good.bin')))).toMatchObject({
    kept: true,
  });
  const { roles, differences } = await bench();
  expect(roles.donor!.sha256).toBe(donorSha());
  expect(differences.filter((d) => d.differingBytes > 0).map((d) => d.region.name)).toEqual([
    'code',
    'unit identity',
    'calibration',
  ]);
});

test('the merged image is checked, kept by its hash, downloadable, and marked as written', async () => {
  const { family, roles } = await bench();
  const built = await buildMerged(29, roles.patient!.sha256, donorSha(), proposeRules(family!));
  expect(built.kept).toBe(true);
  const { merged } = (await bench()).roles;
  expect(merged!.verdict.sound).toBe(true);
  const bytes = await loadImageBytes(merged!.sha256);
  expect(sha256Hex(bytes!)).toBe(merged!.sha256);
  await markWritten(29, 'U19', merged!.sha256);
  const job = (await loadJob(29))!;
  expect(job.findings.image).toBe('Merged image written, checks hold');
  expect(job.next.stage).toBe('prove');
});

test('rules that would copy an identity are refused in words', async () => {
  const { family, roles } = await bench();
  const rules = { ...proposeRules(family!), 'unit identity': 'donor' as const };
  expect(await buildMerged(29, roles.patient!.sha256, donorSha(), rules)).toEqual({
    kept: false,
    words: 'unit identity is the identity of one unit: it stays the patient’s.',
  });
  expect(await buildMerged(29, 'e'.repeat(64), donorSha(), rules)).toMatchObject({ kept: false });
});

test('what a chip held before a write is kept under its hash and noted on the job; other sizes and no file are refused', async () => {
  const held = demoDump('marshdesk-known-good.bin');
  held[0x100] ^= 0x40;
  const before = (await jobEventsOf(db, 29)).length;
  expect(await keepOriginal(29, 'U19', form('x.bin', new Uint8Array(12)))).toMatchObject({ kept: false });
  expect(await keepOriginal(29, 'U19', new FormData())).toMatchObject({ kept: false });
  expect((await jobEventsOf(db, 29)).length).toBe(before);
  expect(await keepOriginal(29, 'U19', form('before.bin', held))).toMatchObject({ kept: true });
  const sha256 = sha256Hex(held);
  expect(sha256Hex((await loadImageBytes(sha256))!)).toBe(sha256);
  const last = (await jobEventsOf(db, 29)).at(-1)!;
  expect(last.body).toEqual({ kind: 'note', text: `Before the write U19 held an image that is kept as ${sha256}.` });
  expect((await listImages(db, 'marsh-pd3')).map((i) => i.name)).toContain('U19 of job 29 before the write');
});

test('one wrong bit in a dump is named with its place', async () => {
  const dump = demoDump('marshdesk-known-good.bin');
  dump[0x321] ^= 0x08;
  expect(await keepDump(29, 'donor', form('flip.bin', dump))).toMatchObject({ kept: true });
  const { donor } = (await bench()).roles;
  expect(donor!.verdict.sound).toBe(false);
  expect(donor!.signs[0]).toMatch(/^One bit is wrong: bit 3 of .*321/);
});
