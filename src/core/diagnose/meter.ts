import type { Board } from '../board';
import { normalPdf } from '../math';
import { VSAFE5_V, type MeterCase } from './power';
import type { Alternative, Prediction } from './prediction';

/** What each meter case means, in a few words. Source: common practice, no published source. */
export const METER_WORDS: Record<MeterCase, string> = {
  nothing: 'nothing at all',
  noTalk: 'no conversation',
  noTalkUnfed: 'no conversation, controller not fed',
  supplyShorted: 'no conversation, supply pulled down',
  contractCollapses: 'the contract collapses',
  healthy: 'charging',
  noCharge: 'full level, no charging',
  preCharge: 'pre-charge of a flat pack',
  earlyLoad: 'half an ampere at once',
  systemShorted: 'full level, a system rail shorted',
};

/** Volts and amps per meter case. Sources: handbook facts of the trade (common practice, no published source). */
export function meterReading(board: Board, portId: string, meter: MeterCase): Prediction {
  const port = board.ports.find((p) => p.id === portId)!;
  const healthyA = (port.healthyA[0] + port.healthyA[1]) / 2;
  const spreadA = (port.healthyA[1] - port.healthyA[0]) / 3;
  const shown = (volts: number, amps: number, ampSd = 0.015, weight = 1): Alternative => ({
    means: [volts, amps],
    sds: [0.06 + 0.01 * volts, ampSd],
    weight,
  });
  switch (meter) {
    case 'nothing':
      return values(shown(0, 0));
    case 'noTalk':
      return values(shown(VSAFE5_V, 0.01));
    case 'noTalkUnfed':
      return values(shown(VSAFE5_V, 0, 0.008, 0.6), shown(0, 0, 0.008, 0.4));
    case 'supplyShorted':
      return values(shown(VSAFE5_V, 0.06, 0.03));
    case 'contractCollapses':
      return values(shown(VSAFE5_V, 0.03, 0.03, 0.7), shown(0, 0, 0.02, 0.3));
    case 'systemShorted':
      return values(shown(port.designV, 0.25, 0.15));
    case 'noCharge':
      return values(shown(port.designV, 0.03, 0.03));
    case 'preCharge':
      return values(shown(port.designV, 0.1, 0.025, 0.6), shown(port.designV, 0.03, 0.03, 0.4));
    case 'earlyLoad':
      return values(shown(VSAFE5_V, 0.5, 0.08, 0.8), shown(port.designV, 0.5, 0.08, 0.2));
    case 'healthy':
      return values(shown(port.designV, healthyA, spreadA));
  }
}

const values = (...alternatives: Alternative[]): Prediction => ({ kind: 'values', alternatives });

const CASES = Object.keys(METER_WORDS) as MeterCase[];

/**
 * The case that a meter reading fits best, each taken as equally likely beforehand.
 * Several cases look alike at the meter; the belief, not this name, decides between parts.
 */
export function readMeter(board: Board, portId: string, volts: number, amps: number): MeterCase {
  const fit = (meter: MeterCase): number => {
    const prediction = meterReading(board, portId, meter);
    if (prediction.kind !== 'values') return 0;
    return prediction.alternatives.reduce(
      (sum, alt) =>
        sum + alt.weight * normalPdf(volts, alt.means[0], alt.sds[0]) * normalPdf(amps, alt.means[1], alt.sds[1]),
      0,
    );
  };
  return CASES.reduce((best, meter) => (fit(meter) > fit(best) ? meter : best));
}

/** Every case with what the meter would show, for drawing them beside a reading. */
export function meterCases(board: Board, portId: string): { meter: MeterCase; alternatives: readonly Alternative[] }[] {
  return CASES.map((meter) => {
    const prediction = meterReading(board, portId, meter);
    return { meter, alternatives: prediction.kind === 'values' ? prediction.alternatives : [] };
  });
}
