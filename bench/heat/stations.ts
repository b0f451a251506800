import {
  COUPON_ALLOYS_C,
  DEFAULT_BLOW,
  calibrated,
  fitStation,
  type Trial,
  type Unknowns,
} from '../../src/core/calibration';
import {
  NOMINAL_STATION,
  aimPlan,
  judgeHeat,
  peakRange,
  simulateHeat,
  startingPlan,
  withUnknowns,
  type HeatPlan,
  type Station,
} from '../../src/core/heat';
import { seededRandom, type Random } from '../../src/core/math';
import { SimulatedStation } from '../../src/devices/station';
import { demoBoard } from '../../demo/files';
import { note, ratio, section } from '../print';

/** Stations that are not what a calibration takes them to be; 400 each with `STATIONS=400`. */
const TRIALS = Number(process.env.STATIONS ?? 40);
const KINDS: Record<string, Partial<Unknowns>> = {
  'as assumed': {},
  'probe 5 % low': { probeShare: 0.95 },
  '15 % more loss': { lossShare: 1.15 },
  'efficiency falls with the flow': { flowExponent: -0.08 },
  'all three': { probeShare: 0.95, lossShare: 1.15, flowExponent: -0.08 },
};
/** The plan's flow: other than the one that was calibrated at. */
const PLAN_FLOW = 20;

const board = demoBoard('heronlog-4-c');

/** A log of a minute, and with `pinned` what the probe shows in boiling water and under a melting alloy. */
function trialsOf(
  station: SimulatedStation,
  truth: Unknowns,
  random: Random,
  way: 'log' | 'pinned' | 'coupon',
): Trial[] {
  if (way === 'coupon') {
    const thresholds = [138, 183].map((alloyC): Trial => {
      return { kind: 'threshold', ...DEFAULT_BLOW, alloyC, setC: station.threshold(DEFAULT_BLOW, alloyC) };
    });
    const melts = [350, 400].flatMap((setC) =>
      COUPON_ALLOYS_C.flatMap((alloyC): Trial[] => {
        const seconds = station.melt({ ...DEFAULT_BLOW, setC }, alloyC);
        return seconds === null ? [] : [{ kind: 'melt', ...DEFAULT_BLOW, setC, alloyC, seconds }];
      }),
    );
    return [...thresholds, ...melts];
  }
  const log: Trial = { kind: 'log', ...DEFAULT_BLOW, probes: station.log(DEFAULT_BLOW, 60, ['slug', 'far']) };
  const points = [100, 183].map((trueC): Trial => {
    const readC = 22 + truth.probeShare * (trueC - 22) + (random() - 0.5);
    return { kind: 'fixedPoint', trueC, readC, ambientC: 22 };
  });
  return way === 'pinned' ? [log, ...points] : [log];
}

const withFlow = (plan: HeatPlan): HeatPlan => ({
  ...plan,
  steps: plan.steps.map((s) => (s.airSetC === null ? s : { ...s, flowLpm: PLAN_FLOW })),
});

const peakOn = (station: Station, plan: HeatPlan): number =>
  Math.max(
    ...simulateHeat(board, station, plan, { frames: false })!.parts.find((p) => p.ref === plan.partRef)!.jointMinC,
  );

function benchStations(): void {
  for (const way of ['log', 'pinned', 'coupon'] as const) {
    section(`Stations outside of the family, calibrated by ${way}: ${TRIALS} of each kind, the plan at another flow`);
    for (const [kind, off] of Object.entries(KINDS)) {
      let inside = 0;
      let told = 0;
      let fitted = 0;
      let safe = 0;
      let broken = 0;
      const widths: number[] = [];
      const errors: number[] = [];
      for (let k = 0; k < TRIALS; k++) {
        const random = seededRandom(3000 + k);
        const truth: Unknowns = {
          ...SimulatedStation.drawTruth(random),
          ...{ lossShare: 1, flowExponent: 0, heatShare: 1, probeShare: 1, ...off },
        };
        const dial: Station = {
          ...NOMINAL_STATION,
          efficiencyByFlow: { exponent: 0, atFlowLpm: DEFAULT_BLOW.flowLpm },
        };
        const trials = trialsOf(new SimulatedStation(dial, truth, random), truth, random, way);
        const fit = fitStation(NOMINAL_STATION, trials);
        if (!fit.ok) continue;
        fitted += 1;
        told += Number(fit.value.fit?.holds === false);
        const found = calibrated(NOMINAL_STATION, { calibration: fit.value, flowLpm: DEFAULT_BLOW.flowLpm });
        const { plan } = aimPlan(board, found, withFlow(startingPlan('U4', 'SAC305', 4)));
        const range = peakRange(board, found, plan);
        const truePeak = peakOn(withUnknowns(dial, truth), plan);
        inside += Number(truePeak >= range.low95C && truePeak <= range.high95C);
        widths.push(range.high95C - range.low95C);
        errors.push(truePeak - range.peakC);
        const judged = judgeHeat(board, plan, simulateHeat(board, found, plan, { frames: false })!);
        const sure = judged.holds && range.low95C > judged.reachC;
        safe += Number(sure);
        broken += Number(sure && truePeak < judged.reachC);
      }
      const rms = Math.sqrt(errors.reduce((s, e) => s + e * e, 0) / errors.length);
      widths.sort((a, b) => a - b);
      note(`${kind}: ${TRIALS - fitted} refused, ${told} told that they do not fit; off by ${rms.toFixed(1)} K rms`);
      ratio('  true peak inside the stated 95 % range', inside / fitted, '0.90 to 0.99');
      ratio('  stated width over what 95 % of errors span', widths[widths.length >> 1] / (2 * 1.96 * rms), 'at most 3');
      note(`  ${safe} called safe, ${broken} of them never melt on the true station`);
    }
  }
}

benchStations();
