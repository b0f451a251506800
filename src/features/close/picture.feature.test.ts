/** Pictures for the report: only what was masked and carries nothing else is kept. */
import { demoBench } from '../tests/demo-bench';
import { sha256Hex } from '@/core/image';
import { loadJob } from '@/features/job/queries';
import type { Database } from '@/db/client';
import { imageBytes } from '@/db/images';
import { jobEventsOf } from '@/db/jobs';
import { keepPicture } from './actions';
import { loadReport, loadReportPictures } from './queries';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));

let db: Database;
let remove: () => void;
beforeAll(async () => ({ db, remove } = await demoBench()));
afterAll(() => remove());

const segment = (marker: number, ...data: number[]): number[] => [0xff, marker, 0, data.length + 2, ...data];
const END = [...segment(0xda, 1, 2), 7, 0xff, 0xd9];
const PLAIN = Uint8Array.of(0xff, 0xd8, ...segment(0xe0, 74, 70, 73, 70), ...END);

function form(bytes: Uint8Array, words = 'the port, clean'): FormData {
  const data = new FormData();
  data.set('picture', new File([Uint8Array.from(bytes)], 'masked.jpg'));
  data.set('words', words);
  data.set('masks', '2');
  return data;
}

test('a masked picture is kept by its hash and stands in the report', async () => {
  expect(await keepPicture(27, form(PLAIN), 'picture-1')).toMatchObject({ saved: true });
  const sha256 = sha256Hex(PLAIN);
  expect(await imageBytes(db, sha256)).toEqual(PLAIN);
  expect((await loadJob(27))!.state.pictures).toMatchObject([{ sha256, words: 'the port, clean', masks: 2 }]);
  const report = (await loadReport(27))!;
  expect(report.pictures).toEqual([{ sha256, words: 'the port, clean' }]);
  expect((await loadReportPictures(report)).get(sha256)).toEqual(Buffer.from(PLAIN));
});

test.each([
  ['what a camera writes into it', form(Uint8Array.of(0xff, 0xd8, ...segment(0xe1, 69, 120), ...END)), /EXIF/],
  ['bytes behind its end', form(Uint8Array.of(...PLAIN, 1)), /behind its end/],
  ['another format', form(Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)), /Expected a JPEG/],
  ['no words', form(PLAIN, ' '), /what the picture shows/],
  ['no file', new FormData(), /got none/],
])('with %s it is refused and nothing is kept', async (_, data, words) => {
  const before = (await jobEventsOf(db, 27)).length;
  const answer = await keepPicture(27, data, `picture-${words}`);
  expect([answer.saved, answer.message]).toEqual([false, expect.stringMatching(words)]);
  expect(answer.message).toMatch(/Nothing was kept\.$/);
  expect((await jobEventsOf(db, 27)).length).toBe(before);
});

test('a job that does not exist gets no picture', async () => {
  expect(await keepPicture(4711, form(PLAIN), 'picture-x')).toMatchObject({ saved: false });
});
