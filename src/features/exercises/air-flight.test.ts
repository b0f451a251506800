import { demoBoard } from '../../../demo/files';
import { MOST_FLIGHT_S, reviewExercise, type AirDrill } from '@/core/drill';
import { airBegun, airReducer, airSecond, type AirAct, type AirState } from './air-flight';

const board = demoBoard('heronlog-4-c');
const drill: AirDrill = { kind: 'air', format: 1, name: 'x', boardId: board.id, ref: 'U4', seed: 8, grade: 3 };
const after = (...acts: AirAct[]): AirState => acts.reduce(airReducer, airBegun(board, drill));
const BEGIN: AirAct = { do: 'begin', nowMs: 10_000 };

test('before the air is on, covers, nozzle, plate and dial are set; none of them is a move', () => {
  const state = after(
    { do: 'cover', ref: 'U9' },
    { do: 'cover', ref: 'Q1' },
    { do: 'cover', ref: 'U9' },
    { do: 'nozzle', mm: 6 },
    { do: 'plate', setC: 150 },
    { do: 'turn', nowMs: 0, by: { airSetC: -50 } },
  );
  expect(state.flight).toEqual({ nozzleMm: 6, covers: ['Q1'], plateSetC: 150, moves: [] });
  expect(airReducer(state, BEGIN).flight.moves).toEqual([{ do: 'air', atS: 0, ...state.setting }]);
});

test('seconds go by as the speed says, from the moment it was set', () => {
  const slow = after(BEGIN);
  expect(airSecond(slow, 14_000)).toBe(4);
  const fast = airReducer(slow, { do: 'speed', nowMs: 14_000, speed: 4 });
  expect(airSecond(fast, 15_000)).toBe(8);
  expect(airSecond(fast, 10_000_000)).toBe(MOST_FLIGHT_S);
});

test('every turn of the dial is a move at its second, and stays within what a station can', () => {
  const state = after(
    BEGIN,
    { do: 'turn', nowMs: 15_500, by: { airSetC: 1000 } },
    { do: 'turn', nowMs: 15_900, by: { heightMm: -100 } },
  );
  expect(state.flight.moves.slice(1)).toEqual([
    { do: 'air', atS: 5, airSetC: 480, flowLpm: state.setting.flowLpm, heightMm: 20 },
    { do: 'air', atS: 5, airSetC: 480, flowLpm: state.setting.flowLpm, heightMm: 4 },
  ]);
});

test('what was set up cannot be changed under the air, and nothing can after the lift', () => {
  const flying = after({ do: 'cover', ref: 'U9' }, BEGIN);
  for (const act of [
    { do: 'cover', ref: 'Q1' },
    { do: 'nozzle', mm: 4 },
    { do: 'plate', setC: null },
    BEGIN,
  ] as AirAct[])
    expect(airReducer(flying, act)).toBe(flying);
  const over = airReducer(flying, { do: 'lift', nowMs: 70_000 });
  expect([over.phase, airSecond(over, 999_000)]).toEqual(['over', 60]);
  expect(airReducer(over, { do: 'turn', nowMs: 71_000, by: { airSetC: 10 } })).toBe(over);
});

test('whatever is flown can be judged, also where the air only goes away', () => {
  const lifted = after(BEGIN, { do: 'nudge', nowMs: 50_000, swam: false }, { do: 'lift', nowMs: 60_000 });
  const away = after(BEGIN, { do: 'away', nowMs: 40_000 });
  expect(lifted.said).toEqual({ atS: 40, swam: false });
  expect(reviewExercise(board, drill, lifted.flight)).toMatchObject({
    ok: true,
    value: { end: 'pulledCold', score: 0 },
  });
  expect(reviewExercise(board, drill, away.flight)).toMatchObject({ ok: true, value: { end: 'neverLifted' } });
});
