import { demoBoard } from '../../../demo/files';
import { NOMINAL_STATION, judgeHeat, nozzleFor, simulateHeat, startingPlan } from '.';
import { heatFinding, shownHeatSchema, shownOf } from './shown';

const board = demoBoard('heronlog-4-c');
const plan = startingPlan('U4', 'SAC305', nozzleFor(NOMINAL_STATION.nozzlesMm, [6, 6]));
const heated = (airSetC: number) => {
  const steps = plan.steps.map((s) => ({ ...s, airSetC: s.airSetC === null ? null : airSetC }));
  const hotter = { ...plan, steps };
  return judgeHeat(board, hotter, simulateHeat(board, NOMINAL_STATION, hotter, { frames: false })!);
};

test('what breaks a limit is listed, and a plan holds just where nothing is', () => {
  const verdicts = [150, 380, 480].map(heated);
  expect(verdicts[0].breaks).toContain('coldest');
  expect(verdicts[2].breaks).toContain('neighbour');
  for (const v of verdicts) expect(v.holds).toBe(v.breaks.length === 0);
});

test('a few words for the path come from the figures alone', () => {
  const figures = { actAtS: 61, tightest: { ref: 'U9', limited: 'joints' as const, peakC: 199.4, limitC: 205 } };
  expect(heatFinding(plan, { ...figures, breaks: [] })).toBe('lifts at 61 s, U9 joints 199 °C of 205');
  const hot = { ...figures, tightest: { ...figures.tightest, peakC: 221 } };
  expect(heatFinding(plan, { ...hot, breaks: ['neighbour'] })).toBe('lifts at 61 s, U9 reaches 221 °C against 205');
  expect(heatFinding(plan, { ...figures, breaks: ['inTime'] })).toBe('U4 ready too late');
  expect(heatFinding(plan, { actAtS: null, tightest: null, breaks: ['coldest'] })).toBe('U4 not hot enough');
  expect(heatFinding(plan, { actAtS: 61, tightest: null, breaks: ['notSaid'] })).toBe('lifts at 61 s');
});

test('what was shown is figures: no sentence gets into the record', () => {
  const verdict = heated(480);
  const shown = shownOf(verdict);
  expect(shownHeatSchema.parse(JSON.parse(JSON.stringify(shown)))).toEqual(shown);
  expect(JSON.stringify(shown)).not.toContain(' ');
  expect(shown.tightest!.ref).toBe(verdict.neighbours[0].ref);
});
