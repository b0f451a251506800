/** Pictures and house rules as the interface keeps them: checked again on the server, stored data untouched by bad input. */
import { demoBench } from '../tests/demo-bench';
import { balledPart } from '@/core/site';
import { loadJob } from '../job/queries';
import { jobEventsOf } from '@/db/jobs';
import type { Database } from '@/db/client';
import { keepInspection, keepSiteRule } from './actions';
import { loadPicture, loadSiteBench } from './queries';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));

let db: Database;
let remove: () => void;
beforeAll(async () => ({ db, remove } = await demoBench()));
afterAll(() => remove());

/** The signature of a PNG and nothing else: enough to be kept, since only a browser decodes it. */
const PNG = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];

async function form(bytes: number[], more: object = {}): Promise<FormData> {
  const { board } = (await loadJob(32))!;
  const part = board.parts.find((p) => p.ref === 'U8')!;
  const { pins } = balledPart(board.packages[part.package])!;
  const seen = {
    ...{
      kind: 'inspection',
      ref: 'U8',
      toPicture: [44, 0, 250, 0, 44, 250, 0, 0],
      mmPerPx: 0.018,
      bridges: [],
      crumbs: [],
    },
    balls: pins.map((pin) => ({ pin, state: 'good', diameterMm: 0.45, sdMm: 0.004 })),
    ...more,
  };
  const data = new FormData();
  data.set('picture', new File([Uint8Array.from(bytes)], 'u8.png'));
  data.set('seen', JSON.stringify(seen));
  return data;
}

test('a picture is kept with what was seen, and served as what it is', async () => {
  expect(await keepInspection(32, await form(PNG), 'balls-1')).toMatchObject({ saved: true });
  const { state, findings } = (await loadJob(32))!;
  const kept = state.inspections.U8;
  expect(kept).toMatchObject({ name: 'u8.png' });
  expect(kept.balls).toHaveLength(100);
  expect(findings.balls).toBe('Can go down as it is');
  expect(await loadPicture(kept.sha256)).toMatchObject({ type: 'image/png' });
  expect(await loadPicture('0'.repeat(64))).toBeUndefined();
});

test('pads are kept in the same way; an event that is no look at a picture is refused', async () => {
  const pads = [{ pin: '1', state: 'lifted', unclear: false, byHand: true }];
  const look = { kind: 'padLook', ref: 'U4', width: 600, height: 500, pads };
  expect(await keepInspection(32, await form(PNG, look), 'pads-1')).toMatchObject({ saved: true });
  expect((await loadJob(32))!.state.padLooks.U4).toMatchObject({ pads, width: 600 });
  const other = await keepInspection(32, await form(PNG, { kind: 'note', text: 'x' }), 'pads-2');
  expect(other).toMatchObject({
    saved: false,
    message: expect.stringContaining('Expected what was seen in the picture'),
  });
});

test('an image of a chip is not served as a picture', async () => {
  const { state } = (await loadJob(29))!;
  expect(await loadPicture(state.images.patient!.sha256)).toBeUndefined();
});

test.each<[string, () => Promise<FormData>, string]>([
  ['no picture', async () => new FormData(), 'got none'],
  ['something else', () => form([1, 2, 3]), 'this file is neither'],
  ['balls without a diameter', () => form(PNG, { balls: [{ pin: 'A1', state: 'good' }] }), 'balls.0.diameterMm'],
  ['no such state', () => form(PNG, { balls: [{ pin: 'A1', state: 'odd', diameterMm: 1, sdMm: 0 }] }), 'balls.0.state'],
])('%s is refused, and nothing is stored', async (_, data, words) => {
  const before = await jobEventsOf(db, 32);
  const answer = await keepInspection(32, await data(), `balls-bad-${words}`);
  expect(answer.saved).toBe(false);
  expect(answer.message).toContain(words);
  expect(await jobEventsOf(db, 32)).toEqual(before);
});

test('a picture for a job that is not there, and a torn description', async () => {
  expect((await keepInspection(9999, await form(PNG), 'balls-2')).message).toContain('no job 9999');
  const torn = await form(PNG);
  torn.set('seen', '{half');
  expect((await keepInspection(32, torn, 'balls-3')).message).toContain('as JSON');
});

test('house rules are kept one by one; a rule that is none leaves them as they were', async () => {
  expect((await loadSiteBench()).practice).toMatchObject({ braid: 'above', braidFromPitchMm: 0.5 });
  expect(await keepSiteRule({ braid: 'never' })).toMatchObject({ saved: true });
  expect(await keepSiteRule({ braidFromPitchMm: 9 })).toMatchObject({ saved: false });
  expect((await loadSiteBench()).practice).toMatchObject({ braid: 'never', braidFromPitchMm: 0.5 });
});
