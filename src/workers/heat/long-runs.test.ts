/** The workers of the search and of the translation: one request, progress, an answer, and an end. */
import { FakeWorker, fakeWorkers } from '../tests/fake-worker';
import { demoBoard } from '../../../demo/files';
import { GOALS_BY_ALLOY, NOMINAL_STATION, startingPlan } from '@/core/heat';
import { DEFAULT_BLOW } from '@/core/calibration';
import { calibrateInWorker } from '../calibration/client';
import { reduceInWorker } from '../reduced/client';
import { searchInWorker } from '../search/client';
import { translateInWorker } from '../translation/client';

beforeAll(fakeWorkers);

const board = demoBoard('heronlog-4-c');
const plan = startingPlan('U4', 'SAC305', 4);

test('a search tells its progress, and a cancelled one ends its worker', async () => {
  const told: number[] = [];
  const request = { board, station: NOMINAL_STATION, plan, goals: GOALS_BY_ALLOY.SAC305 };
  const { answer, cancel } = searchInWorker(request, ({ tried }) => told.push(tried));
  expect(FakeWorker.last.sent).toEqual([request]);
  FakeWorker.last.reply({ kind: 'progress', tried: 3, most: 24, tookMs: 900 });
  expect([told, FakeWorker.last.ended]).toEqual([[3], false]);
  cancel();
  expect([await answer, FakeWorker.last.ended]).toEqual([{ kind: 'cancelled' }, true]);
});

test('a translation that crashes becomes a problem that can be tried again', async () => {
  const request = { board, theirs: NOMINAL_STATION, ours: NOMINAL_STATION, plan };
  const { answer } = translateInWorker(request);
  expect(FakeWorker.last.sent).toEqual([request]);
  FakeWorker.last.onerror?.();
  expect(await answer).toEqual({ kind: 'problem', message: 'The translation’s worker ended unexpectedly. Try again.' });
});

test('a calibration and a reduced model are asked for as plain data and end their workers', async () => {
  const trials = [{ kind: 'threshold' as const, ...DEFAULT_BLOW, alloyC: 183 }];
  const fit = calibrateInWorker({ station: NOMINAL_STATION, trials });
  expect(structuredClone(FakeWorker.last.sent[0])).toEqual({ station: NOMINAL_STATION, trials });
  FakeWorker.last.reply({ kind: 'problem', message: 'The calibration stopped.' });
  expect([(await fit.answer).kind, FakeWorker.last.ended]).toEqual(['problem', true]);
  const reduced = reduceInWorker({ board, station: NOMINAL_STATION, plan });
  FakeWorker.last.onerror?.();
  expect(await reduced.answer).toMatchObject({ kind: 'problem', message: expect.stringMatching(/Dragging waits/) });
});
