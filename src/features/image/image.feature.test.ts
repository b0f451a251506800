import { demoBench } from '../tests/demo-bench';
import { demoDump } from '../../../demo/files';
import { custodyOf } from '@/core/job';
import { sha256Hex, type Transplant } from '@/core/image';
import type { Database } from '@/db/client';
import { listImages } from '@/db/images';
import { jobEventsOf } from '@/db/jobs';
import { loadJob } from '../job/queries';
import { buildMerged, keepDump, keepOriginal, markWritten, saveMap, takeKept } from './actions';
import { loadImageBench, loadImageBytes, loadImageLibrary } from './queries';

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
  const { roles, differences, overviews, family, proposed } = await bench();
  expect(family!.id).toBe('marsh-pd3');
  expect(roles.patient!.verdict.sound).toBe(false);
  expect(differences.every((d) => d.differingBytes === 0)).toBe(true);
  expect(overviews.map((o) => o.length)).toEqual([192]);
  expect(proposed!.advice).toBe('Damaged: a donor or a known-good image is needed');
});

test('a dump of the wrong size or no file at all is refused, and nothing is kept', async () => {
  const before = [(await listImages(db, 'marsh-pd3')).length, (await jobEventsOf(db, 29)).length];
  expect(await keepDump(29, 'donor', form('small.bin', new Uint8Array(100)))).toMatchObject({
    saved: false,
    message: 'Expected a raw dump of 131,072 bytes for Marsh three-port image; got 100. Nothing was kept.',
  });
  expect(await keepDump(29, 'donor', new FormData())).toMatchObject({
    saved: false,
    message: 'Expected a file; got none.',
  });
  expect(await takeKept(29, 'donor', 'f'.repeat(64), 'ghost')).toMatchObject({ saved: false });
  expect([(await listImages(db, 'marsh-pd3')).length, (await jobEventsOf(db, 29)).length]).toEqual(before);
});

test('a donor by file is the same image as the kept one', async () => {
  expect(await keepDump(29, 'donor', form('read-again.bin', demoDump('marshdesk-known-good.bin')))).toMatchObject({
    saved: true,
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
  const { proposed, roles } = await bench();
  expect(proposed!.advice).toBe('The donor mends header, code');
  const built = await buildMerged(29, roles.patient!.sha256, donorSha(), proposed!.plan);
  expect(built).toMatchObject({
    saved: true,
    message: expect.stringMatching(/^from the donor: header, code; the patient’s: settings/),
  });
  const { merged } = (await bench()).roles;
  expect(merged!.verdict.sound).toBe(true);
  const bytes = await loadImageBytes(merged!.sha256);
  expect(sha256Hex(bytes!)).toBe(merged!.sha256);
  await markWritten(29, 'U19', merged!.sha256);
  const job = (await loadJob(29))!;
  expect(job.findings.image).toBe('New image written, checks hold');
  expect(job.next.stage).toBe('prove');
});

test('an identity is copied only for a named reason, which stays with what the image was made of', async () => {
  const { proposed, roles } = await bench();
  const plan: Transplant = { ...proposed!.plan, take: { ...proposed!.plan.take, 'unit identity': 'donor' } };
  const refused = await buildMerged(29, roles.patient!.sha256, donorSha(), plan);
  expect(refused).toMatchObject({
    saved: false,
    message: expect.stringMatching(/stays the patient’s, unless a reason is named/),
  });
  expect(await buildMerged(29, 'e'.repeat(64), donorSha(), plan)).toMatchObject({ saved: false });
  expect(await buildMerged(29, roles.patient!.sha256, donorSha(), { ...plan, reason: 'sameUnit' })).toMatchObject({
    saved: true,
  });
  const last = (await jobEventsOf(db, 29)).at(-1)!.body;
  expect(last).toMatchObject({
    role: 'merged',
    madeOf: { donor: donorSha(), family: 'marsh-pd3/1', reason: 'sameUnit' },
  });
});

test('what a chip held before a write is kept in its role; a write that goes on after a break keeps the first', async () => {
  const held = demoDump('marshdesk-known-good.bin');
  held[0x100] ^= 0x40;
  const before = (await jobEventsOf(db, 29)).length;
  expect(await keepOriginal(29, 'U19', form('x.bin', new Uint8Array(12)))).toMatchObject({ saved: false });
  expect(await keepOriginal(29, 'U19', new FormData())).toMatchObject({ saved: false });
  expect((await jobEventsOf(db, 29)).length).toBe(before);
  expect(await keepOriginal(29, 'U19', form('before.bin', held))).toMatchObject({ saved: true });
  const sha256 = sha256Hex(held);
  expect(sha256Hex((await loadImageBytes(sha256))!)).toBe(sha256);
  const half = Uint8Array.from(held).fill(0xff, 0x8000);
  await keepOriginal(29, 'U19', form('before.bin', half));
  const job = (await loadJob(29))!;
  expect([job.state.writing, job.state.images.before!.sha256]).toEqual([true, sha256]);
  await markWritten(29, 'U19', job.state.images.merged!.sha256);
  expect((await loadJob(29))!.state.writing).toBe(false);
});

test('every image and write of the job is a sealed link; one that is left out or changed breaks the chain', async () => {
  const events = await jobEventsOf(db, 29);
  const { custody } = await bench();
  expect(custody.map((l) => l.holds)).toEqual(Array(custody.length).fill(true));
  expect(custody.length).toBeGreaterThan(5);
  const links = events.filter((e) => e.body.kind === 'image');
  const without = custodyOf(events.filter((e) => e !== links[2]));
  expect(without.some((l) => l.holds === false)).toBe(true);
  const other = structuredClone(events);
  Object.assign(other.find((e) => e.seq === links[1].seq)!.body, { name: 'another' });
  expect(custodyOf(other).some((l) => l.holds === false)).toBe(true);
});

test('a map is kept with its next revision; a malformed one or one of another size changes nothing', async () => {
  const { families } = await loadImageLibrary();
  const heron = families.find((f) => f.id === 'heron-pd')!;
  const named = {
    ...heron,
    regions: heron.regions.map((r) => (r.name === 'journal' ? { ...r, name: 'log of events' } : r)),
  };
  expect(await saveMap(named)).toEqual({ saved: true, message: 'Kept as heron-pd, revision 3.' });
  expect(await saveMap({ ...heron, regions: [] })).toMatchObject({ saved: false });
  const larger = { ...heron, sizeBytes: 131_072 };
  expect(await saveMap(larger)).toMatchObject({
    saved: false,
    message: expect.stringMatching(/Give the map an id of its own/),
  });
  const after = (await loadImageLibrary()).families.find((f) => f.id === 'heron-pd')!;
  expect([after.revision, after.regions.some((r) => r.name === 'log of events')]).toEqual([3, true]);
});

test('a dump of another family is told by name', async () => {
  const other = new Uint8Array(131_072).fill(0xff);
  other.set(demoDump('heronlog-known-good.bin'));
  expect(await keepDump(29, 'donor', form('other.bin', other))).toMatchObject({ saved: true });
  expect((await bench()).roles.donor!.signs).toContain(
    'It begins as Heron port image does, not as Marsh three-port image: another family’s image.',
  );
});

test('one wrong bit in a dump is named with its place', async () => {
  const dump = demoDump('marshdesk-known-good.bin');
  dump[0x321] ^= 0x08;
  expect(await keepDump(29, 'donor', form('flip.bin', dump))).toMatchObject({ saved: true });
  const { donor } = (await bench()).roles;
  expect(donor!.verdict.sound).toBe(false);
  expect(donor!.signs[0]).toMatch(/^One bit is wrong: bit 3 of .*321/);
});
