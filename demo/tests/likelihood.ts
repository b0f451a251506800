import { idealReading, type Fault, type Predictor, type Reading } from '../../src/core/diagnose';

/**
 * How well a fault explains readings: the log of a rough likelihood, from the distance of each reading to what the
 * fault gives ideally. A plain twin of the belief's own arithmetic, for checking the demo world.
 */
export function likelihoodOf(predictor: Predictor, fault: Fault, readings: readonly Reading[]): number {
  return readings.reduce((sum, r) => sum + Math.log(fits(predictor, fault, r) ? 0.9 : 0.01), 0);
}

function fits(predictor: Predictor, fault: Fault, r: Reading): boolean {
  const mended =
    (r.replaced ?? []).includes(fault.ref) ||
    (r.replaced ?? []).includes(fault.id) ||
    (r.absent ?? []).includes(fault.ref);
  const active = mended ? { ...fault, effects: [] } : fault;
  const prediction = predictor.predict(r.measurement, active, new Set(r.absent), new Set(r.replaced));
  if (prediction.kind === 'verdict') return (r.value.kind === 'fail') === prediction.failChance > 0.5;
  if (prediction.kind === 'choice') return r.value.kind === 'choice' && (prediction.chance[r.value.choice] ?? 0) > 0.3;
  const ideal = idealReading(predictor, r.measurement, active).value;
  if (r.value.kind === 'figure' && prediction.alternatives.length > 0) {
    const shown = ['groundResistance', 'seriesResistance', 'liftedResistance'].includes(r.measurement.kind)
      ? Math.log10(r.value.value)
      : r.value.value;
    return prediction.alternatives.some((a) => Math.abs(a.means[0] - shown) < 4 * a.sds[0]);
  }
  if (r.value.kind === 'pair') {
    const { volts, amps } = r.value;
    return prediction.alternatives.some(
      (a) => Math.abs(a.means[0] - volts) < 4 * a.sds[0] && Math.abs(a.means[1] - amps) < 4 * a.sds[1],
    );
  }
  return ideal.kind === r.value.kind;
}
