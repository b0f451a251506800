import { sampleReading, type Fault, type Measurement, type Predictor, type Reading } from '../diagnose';
import { normalDraw, type Random } from '../math';
import { together } from './hidden';

/** Spreads of one bench on one day. Engineering estimates. */
const SD = { ohmGain: 0.02, voltGain: 0.01, dropScale: 0.03 };
/** Share of readings at which the probe has no contact. Engineering estimate. */
const NO_CONTACT = 0.01;

/** A bench with its own meter, temperature and hands: what it reads of a hidden board. */
export class NoisyBench {
  private readonly ohmGain: number;
  private readonly voltGain: number;
  private readonly dropScale: number;

  constructor(
    private readonly predictor: Predictor,
    private readonly random: Random,
  ) {
    this.ohmGain = 1 + SD.ohmGain * normalDraw(random);
    this.voltGain = 1 + SD.voltGain * normalDraw(random);
    this.dropScale = 1 + SD.dropScale * normalDraw(random);
  }

  /** One reading; faults that come and go are there or not. */
  read(m: Measurement, faults: readonly Fault[], state: Pick<Reading, 'replaced' | 'swapped'>): Reading {
    const there = faults.filter((f) => f.seen === undefined || this.random() < f.seen);
    const { value } = sampleReading(this.predictor, m, together(there), this.random, {});
    return { measurement: m, value: this.distorted(m, value), ...state };
  }

  private distorted(m: Measurement, value: Reading['value']): Reading['value'] {
    if (value.kind === 'pair') return { ...value, volts: value.volts * this.voltGain };
    if (value.kind !== 'figure') return value;
    if (m.kind === 'railVoltage') return { ...value, value: value.value * this.voltGain };
    if (this.random() < NO_CONTACT) return { kind: 'open' };
    const isDrop = m.kind === 'diodeDrop' || m.kind === 'contactDrop' || m.kind === 'jointDrop';
    return { ...value, value: value.value * (isDrop ? this.dropScale : this.ohmGain) };
  }
}
