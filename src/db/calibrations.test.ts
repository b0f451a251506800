import type { CalibrationRecord } from '../core/calibration';
import { GOALS_BY_ALLOY, NOMINAL_STATION } from '../core/heat';
import type { Database } from './client';
import { findGoals, saveGoals } from './knowledge';
import { dropCalibration, findStation, listCalibrations, saveStation, takeCalibration } from './library';
import { temporaryDatabase } from './tests/temporary';

let db: Database;
let remove: () => void;
beforeEach(async () => ({ db, remove } = await temporaryDatabase()));
afterEach(() => remove());

const record = (multiplier: number, at: string): CalibrationRecord => ({
  at,
  flowLpm: 30,
  trials: 1,
  calibration: {
    outletEfficiency: { value: 0.8, sd: 0.01 },
    multiplier: { value: multiplier, sd: 0.03 },
    spreadDiameters: { value: 3.4, sd: 0.3 },
    outletLagS: { value: 7, sd: 1 },
    correlation: -0.7,
    misfit: 1,
    observations: 40,
  },
});

test('a calibration becomes the station’s figures and stands in its history; a repeated delivery counts once', async () => {
  await saveStation(db, NOMINAL_STATION);
  await takeCalibration(db, 'nominal', record(0.6, '2026-11-24T08:00:00.000Z'), 'a');
  await takeCalibration(db, 'nominal', record(0.65, '2026-11-25T08:00:00.000Z'), 'b');
  await takeCalibration(db, 'nominal', record(0.6, '2026-11-24T08:00:00.000Z'), 'a');
  expect((await listCalibrations(db, 'nominal')).map((r) => r.calibration.multiplier.value)).toEqual([0.6, 0.65]);
  expect(await findStation(db, 'nominal')).toMatchObject({ multiplier: 0.65, outletEfficiency: 0.8, doubt: 0.046 });
});

test('fifty deliveries of one calibration at once stand in the history once', async () => {
  await saveStation(db, NOMINAL_STATION);
  const taken = record(0.6, '2026-11-24T08:00:00.000Z');
  await Promise.all(Array.from({ length: 50 }, () => takeCalibration(db, 'nominal', taken, 'same')));
  expect(await listCalibrations(db, 'nominal')).toEqual([taken]);
});

test('a station that is not here takes nothing', async () => {
  expect(await takeCalibration(db, 'nobody', record(0.6, '2026-11-24T08:00:00.000Z'), 'a')).toBeUndefined();
  expect(await listCalibrations(db, 'nobody')).toEqual([]);
});

test('goals are the usual ones until the bench keeps its own', async () => {
  expect(await findGoals(db)).toEqual(GOALS_BY_ALLOY);
  const own = { ...GOALS_BY_ALLOY, SAC305: { ...GOALS_BY_ALLOY.SAC305, neighbourUnderSolidusK: 20 } };
  await saveGoals(db, own);
  expect(await findGoals(db)).toEqual(own);
});

test('a calibration that is taken back leaves the station as it was, but for what was set by hand since', async () => {
  await saveStation(db, NOMINAL_STATION);
  await takeCalibration(db, 'nominal', record(0.6, '2026-11-24T08:00:00.000Z'), 'a');
  await saveStation(db, { ...(await findStation(db, 'nominal'))!, name: 'By the window' });
  expect(await dropCalibration(db, 'a')).toBe('dropped');
  expect(await findStation(db, 'nominal')).toEqual({ ...NOMINAL_STATION, name: 'By the window' });
  expect(await listCalibrations(db, 'nominal')).toEqual([]);
  expect(await dropCalibration(db, 'a')).toBe('none');
});

test('one that others were built on stays', async () => {
  await saveStation(db, NOMINAL_STATION);
  await takeCalibration(db, 'nominal', record(0.6, '2026-11-24T08:00:00.000Z'), 'a');
  await takeCalibration(db, 'nominal', record(0.65, '2026-11-25T08:00:00.000Z'), 'b');
  expect(await dropCalibration(db, 'a')).toBe('later');
  expect((await findStation(db, 'nominal'))!.multiplier).toBe(0.65);
});
