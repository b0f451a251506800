/** What the next step becomes when tests, work and stopping are weighed against each other. */
import { demoBoard } from '../../../../demo/files';
import { DEFAULT_PRACTICE, PART_KIND_DEFINITIONS, Predictor, SOUND, repairMinutes, targetName } from '../../diagnose';
import { analyseJob } from './analysis';
import { nextStep } from './next-step';
import { proveJob } from '../proof/proof';
import { BenchPlay } from '../tests/bench-play';

const heron = demoBoard('heronlog-4-c');
const predictor = Predictor.of(heron);
const soundOhm = (net: string): string => {
  const sound = predictor.predict({ kind: 'groundResistance', net }, SOUND, new Set(), new Set());
  return `${sound.kind === 'values' ? (10 ** sound.alternatives[0].means[0]).toFixed(0) : '0'} ohm`;
};
const SHORTED = ['look j1 good', 'usb a 5.02 0.06', 'usb b 5.01 0.06', 'pack out', 'out', 'tp7 1.6 ohm', 'tp8 1.7 ohm'];

describe('work now', () => {
  const { view } = new BenchPlay(heron, { history: ['unknownCharger'] }).type(...SHORTED, `tp2 ${soundOhm('VBUS_F')}`);

  test('comes as soon as no test saves more than it costs, with what it is weighed against', () => {
    expect(view.workNow!.repair.targets).toEqual([{ kind: 'part', ref: 'U4' }]);
    expect(view.workNow!.repair.minutes).toBe(repairMinutes(heron, { kind: 'part', ref: 'U4' }).minutes);
    expect(view.workNow!.repair.price).toBe(PART_KIND_DEFINITIONS.portController.work.price);
    expect(view.next).toMatchObject({ stage: 'decide' });
    expect(view.next.title).toMatch(/^Replace U4: cures \d+ in 100$/);
    // The best test first would not end the job noticeably sooner.
    expect(view.workNow!.expectedMinutes).toBeLessThan(view.workNow!.insteadOf! + 1.001);
  });

  test('a blind swap is called one', () => {
    const { state } = view;
    const analysis = analyseJob(predictor, state, DEFAULT_PRACTICE);
    const blind = { ...analysis.workNow!, repair: { ...analysis.workNow!.repair, cureChance: 0.55 } };
    const order = { tests: [], expectedMinutes: 0 };
    const step = nextStep(heron, state, { ...analysis, workNow: blind }, proveJob(predictor, state), order);
    expect(step.title).toBe('Replace U4 blind: cures 55 in 100, and no test is cheaper');
  });

  test('nothing is worked on before the port was looked at', () => {
    const unlooked = new BenchPlay(heron).type('pack out', 'out', 'tp7 1.6 ohm', 'tp8 1.7 ohm').view;
    expect(unlooked.workNow).toBeUndefined();
    expect(unlooked.next.title).toMatch(/^Look into port J1/);
  });
});

describe('stopping', () => {
  const played = (worth: number, dataMatters = false) =>
    new BenchPlay(heron, { worth, dataMatters }).type(...SHORTED).view;

  test('is advised where the repair costs more than the device is worth', () => {
    const { next, tooDear } = played(20);
    expect(tooDear!.cost).toBeGreaterThan(20);
    expect(next.title).toMatch(/^Advise stopping: about \d+ still to spend, worth 20$/);
  });

  test('is not advised where it is worth the repair, nor where the data is what matters', () => {
    expect(played(2000).tooDear).toBeUndefined();
    expect(played(20, true).tooDear).toBeUndefined();
  });

  test('a dearer hour makes the same repair too dear sooner', () => {
    const at = (hour: number) =>
      new BenchPlay(heron, { worth: 90 }, { practice: { prices: { hour } } }).type(...SHORTED).view.tooDear;
    expect(at(30)).toBeUndefined();
    expect(at(200)).toBeDefined();
  });
});

test('damage of the board has a route: decided, mended, and then gone from the suspects', () => {
  const bench = new BenchPlay(heron, { history: ['bend'] }).type('look j1 good', 'pack out', 'out');
  bench.keep({ kind: 'decision', action: 'mend', ref: 'VIN' });
  expect(bench.view.next.title).toBe('Lay a wire past the trace to VIN, then enter "mended vin"');
  bench.type('mended vin');
  expect(bench.state.replaced).toContain('VIN');
  expect(bench.view.next.stage).not.toBe('heat');
  expect(bench.view.repairs.every((r) => r.targets.every((t) => targetName(t) !== 'VIN'))).toBe(true);
});

test('a shield comes off once, for the test that needs it', () => {
  const marsh = demoBoard('marshdesk-2-b');
  const bench = new BenchPlay(marsh).type('look j1 good', 'pack out', 'out');
  expect(bench.state.removedShields).toEqual([]);
  bench.type('shield sh1 off');
  expect(bench.state.removedShields).toEqual(['SH1']);
  expect(bench.type('shield sh1 on').state.removedShields).toEqual([]);
});
