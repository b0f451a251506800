import { foldSoak, restartPeriodS, viewSoak, type Soak } from './soak';

const at = (minute: number): string => new Date(Date.UTC(2026, 10, 24, 8) + minute * 60_000).toISOString();
const soak: Soak = { startedAt: at(0), minutes: 30, restartsAt: [] };

test('it runs, is due, and holds once it was ended after its minutes', () => {
  expect(viewSoak(soak, at(12))).toMatchObject({ state: 'running', leftS: 18 * 60, label: '18:00 min left of 30 min' });
  expect(viewSoak(soak, at(31))).toMatchObject({ state: 'due', leftS: 0 });
  expect(viewSoak({ ...soak, endedAt: at(32) }, at(50)).state).toBe('held');
  expect(viewSoak({ ...soak, endedAt: at(10) }, at(50))).toMatchObject({
    state: 'short',
    label: 'ended after 10:00 min of 30 min',
  });
});

test('restarts at one period are told with it; three minutes point to a missed sensor (common practice)', () => {
  const every = (minutes: number): Soak => ({ ...soak, restartsAt: [3, 3 + minutes, 3 + 2 * minutes].map(at) });
  expect(restartPeriodS(every(3))).toBe(180);
  expect(viewSoak(every(3), at(20)).label).toBe('3 restarts, every 3:00 min: as when a sensor is missed');
  expect(viewSoak(every(7), at(20)).label).toBe('3 restarts, every 7:00 min');
  expect(restartPeriodS({ restartsAt: [1, 4, 12].map(at) })).toBeUndefined();
  expect(viewSoak({ ...soak, restartsAt: [at(4)] }, at(20)).label).toBe('1 restart');
});

test('a soak begins, notes restarts and ends; the next one is another', () => {
  const ended = foldSoak(
    foldSoak([soak], { kind: 'soak', act: 'restart' }, at(5)),
    { kind: 'soak', act: 'end' },
    at(9),
  );
  expect(ended).toEqual([{ ...soak, restartsAt: [at(5)], endedAt: at(9) }]);
  expect(foldSoak(ended, { kind: 'soak', act: 'start', minutes: 10 }, at(11))).toHaveLength(2);
});
