import type { Board } from '@/core/board';
import { Predictor, idealReading, singleFaults, SOUND, type Measurement } from '@/core/diagnose';
import { BenchSupply, SimulatedMultimeter, SimulatedSupply } from '@/devices/instruments';

/** Faults that a supply sees as a short at its own output, ohm. Engineering estimate. */
const SHORT_OHM = 0.5;
/** More than this a fault's own net takes to ground, and the supply does not notice. Engineering estimate. */
const LOUD_BELOW_OHM = 5;

/** The board that lies on the simulated bench: all good, or with one fault of its own. */
export class SimulatedBoard {
  readonly supply: SimulatedSupply;
  readonly meter: SimulatedMultimeter;
  private onBench?: BenchSupply;
  private under?: Measurement;
  private faultId: string = SOUND.id;

  constructor(
    private readonly board: Board,
    private readonly drawA: number,
    seed: number,
  ) {
    this.supply = new SimulatedSupply(() => ({ drawA: this.drawA, ...(this.isShorted() && { shortOhm: SHORT_OHM }) }));
    this.meter = new SimulatedMultimeter(
      () => ({
        ohm: this.figure('groundResistance'),
        volts: this.figure('railVoltage'),
        dropV: this.figure('jointDrop'),
      }),
      seed,
    );
  }

  /** The supply as a hand uses it. */
  get supplyOnBench(): BenchSupply {
    return (this.onBench ??= new BenchSupply(this.supply));
  }

  /** The probe is held to a place. */
  hold(place: Measurement): void {
    this.under = place;
  }
  has(faultId: string): void {
    this.faultId = faultId;
  }

  private fault() {
    return singleFaults(this.board).find((f) => f.id === this.faultId) ?? SOUND;
  }
  private isShorted(): boolean {
    const [input] = this.board.ports;
    return this.reading({ kind: 'groundResistance', net: input.vbusRail }) < LOUD_BELOW_OHM;
  }
  private figure(kind: 'groundResistance' | 'railVoltage' | 'jointDrop'): number {
    if (this.under?.kind !== kind) return 0;
    if (kind === 'railVoltage' && (this.supply.output.limits || this.supply.output.volts === 0)) return 0;
    return this.reading(this.under);
  }
  private reading(m: Measurement): number {
    const { value } = idealReading(Predictor.of(this.board), m, this.fault());
    return value.kind === 'figure' ? value.value : value.kind === 'open' ? Infinity : 0;
  }
}
