import { keepFilePreset, loadFilePresets } from '../file-presets';
import { demoBench } from '../../features/tests/demo-bench';
import type { Database } from '../../db/client';

let db: Database;
let remove: () => void;
beforeAll(async () => ({ db, remove } = await demoBench()));
afterAll(() => remove());

const preset = { name: 'bench meter', reader: 'meter', signature: ';|one|two', answers: { voltage: 'two' } };

test('what was said of an instrument’s files is kept once, by its name and by the look of its files', async () => {
  expect(await loadFilePresets(db)).toEqual([]);
  expect(await keepFilePreset(db, preset)).toMatchObject({ saved: true });
  expect(await keepFilePreset(db, { ...preset, answers: { voltage: 'one' } })).toMatchObject({ saved: true });
  expect(await keepFilePreset(db, { ...preset, name: 'the other meter' })).toMatchObject({ saved: true });
  expect(await loadFilePresets(db)).toEqual([{ ...preset, name: 'the other meter' }]);
  expect(await keepFilePreset(db, { ...preset, signature: ',|a|b' })).toMatchObject({ saved: true });
  expect((await loadFilePresets(db)).map((p) => p.name)).toEqual(['the other meter', 'bench meter']);
});

test('one without a name, or that is none, changes nothing', async () => {
  const before = await loadFilePresets(db);
  for (const wrong of [{ ...preset, name: '  ' }, null, 'meter', { ...preset, answers: 7 }])
    expect(await keepFilePreset(db, wrong)).toMatchObject({
      saved: false,
      message: expect.stringMatching(/^Expected a name/),
    });
  expect(await loadFilePresets(db)).toEqual(before);
});
