import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { demoBoard } from '../../demo/files';
import { loadYear } from '../../demo/year';
import { saveBoard } from '../db/boards';
import { temporaryDatabase } from '../db/tests/temporary';
import { cli } from './tests/run-cli';

const HERON = 'demo/boards/heronlog-4-c.json';
const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-drill-'));
const file = (name: string, content: unknown): string => {
  const at = path.join(folder, name);
  writeFileSync(at, JSON.stringify(content));
  return at;
};
const json = async (...args: string[]) => {
  const { out, code } = await cli(...args);
  expect(code).toBe(0);
  return JSON.parse(out);
};

test('a drill is made, played by lines, and its steps are scored', async () => {
  const drill = file('drill.json', await json('drill', 'make', HERON, '--seed', '4102', '--misleading'));
  const played = await json('drill', 'play', HERON, drill, 'look j1', 'usb a', 'replace d2');
  expect(played).toMatchObject({ end: 'cured', story: expect.stringContaining('J1 charges only one way round.') });
  const steps = file(
    'steps.json',
    played.steps.map((s: { step: unknown }) => s.step),
  );
  const scored = await json('drill', 'score', HERON, drill, steps);
  expect(scored).toMatchObject({ end: 'cured', truth: 'D2 ESD array, side B, CC2 shorted to ground' });
  expect(scored.score.minutes).toBeCloseTo(played.minutes, 9);
});

test.each([
  [['drill', 'make', HERON, '--faults', '4'], 'Expected a drill that can be drawn; faults'],
  [['drill', 'play', HERON, file('none.json', { format: 1 })], 'none.json'],
  [
    [
      'drill',
      'play',
      HERON,
      file('ok.json', { format: 1, name: 'a', boardId: 'x', seed: 1, faults: 1, grade: 1 }),
      'dance',
    ],
    'Expected a reading without its value',
  ],
])('%j is refused in words', async (args, words) => {
  const { err, code } = await cli(...args);
  expect([code, err]).toEqual([2, expect.stringContaining(words)]);
});

test('the records of a shop from its database', async () => {
  const { db, url, remove } = await temporaryDatabase();
  await db.transaction(async (tx) => {
    for (const id of ['heronlog-4-c', 'marshdesk-2-b'] as const)
      await saveBoard(tx, demoBoard(id), '2025-11-24T08:00:00.000Z');
    await loadYear(tx, 12);
  });
  const at = url.replace('file:', '');
  const cures = await json('records', 'cures', '--by', 'person', '--database', at);
  expect(cures.rows.reduce((n: number, r: { jobs: number }) => n + r.jobs, 0)).toBe(cures.jobs);
  const points = await json('records', 'point', 'heronlog-4-c', '--database', at);
  const point = await json(
    'records',
    'point',
    'heronlog-4-c',
    points.points[0].point,
    '--near',
    '0,6',
    '--database',
    at,
  );
  expect(point.near.value).toBe(0.6);
  expect((await cli('records', 'cures', '--by', 'weather', '--database', at)).err).toContain('Expected --by board');
  remove();
});
