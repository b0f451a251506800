import { normalDraw, seededRandom, type Random } from '../../core/math';
import { InstrumentProblem } from './answers';
import type { TextInstrument } from './text-instrument';

/** What lies under the probe of a simulated bench: asked each time, as the probe moves. */
export interface Probed {
  /** Ohms to ground with the power off; Infinity where nothing conducts. */
  readonly ohm: number;
  /** Volts to ground with the power on. */
  readonly volts: number;
  /** The drop in diode mode, red lead on ground, V; Infinity where nothing conducts. */
  readonly dropV: number;
}

/** The board on a simulated bench, as its supply sees it. */
export interface BenchLoad {
  /** What a running board draws at the supply's level, A. */
  readonly drawA: number;
  /** A short across the supply, ohm; none where there is none. */
  readonly shortOhm?: number;
}

/** A reading's spread, share of it: common practice for a hand meter, no source. */
const SPREAD = 0.004;
const IDENTITY = 'Unisolda,Simulated,0,1';

abstract class Simulated implements TextInstrument {
  async tell(command: string): Promise<void> {
    if (!this.obey(command.trim().toUpperCase()))
      throw new InstrumentProblem(`Expected a command of this instrument; got “${command}”.`);
  }
  async ask(query: string): Promise<string> {
    const text = query.trim().toUpperCase();
    if (text === '*IDN?') return IDENTITY;
    const answer = this.answer(text);
    if (answer === undefined) throw new InstrumentProblem(`Expected a query of this instrument; got “${query}”.`);
    return Number.isFinite(answer) ? answer.toExponential(5) : '9.9E37';
  }
  protected abstract obey(command: string): boolean;
  protected abstract answer(query: string): number | undefined;
}

/** A bench supply that holds its volts until the board wants more than its limit. */
export class SimulatedSupply extends Simulated {
  private volts = 0;
  private limitA = 0;
  private on = false;

  constructor(private readonly load: () => BenchLoad) {
    super();
  }

  /** The output as it is: volts fall where the limit holds. */
  get output(): { readonly volts: number; readonly amps: number; readonly limits: boolean } {
    if (!this.on) return { volts: 0, amps: 0, limits: false };
    const { drawA, shortOhm } = this.load();
    const wanted = drawA + (shortOhm === undefined ? 0 : this.volts / shortOhm);
    if (wanted <= this.limitA) return { volts: this.volts, amps: wanted, limits: false };
    return {
      volts: shortOhm === undefined ? this.volts * (this.limitA / wanted) : this.limitA * shortOhm,
      amps: this.limitA,
      limits: true,
    };
  }

  protected obey(command: string): boolean {
    const [, what, value] = /^(VOLT|CURR|OUTP)\s+(\S+)$/.exec(command) ?? [];
    if (what === 'OUTP' && (value === 'ON' || value === 'OFF')) this.on = value === 'ON';
    else if (what === 'VOLT' && Number(value) >= 0) this.volts = Number(value);
    else if (what === 'CURR' && Number(value) >= 0) this.limitA = Number(value);
    else return false;
    return true;
  }
  protected answer(query: string): number | undefined {
    switch (query) {
      case 'OUTP?':
        return this.on ? 1 : 0;
      case 'VOLT?':
        return this.volts;
      case 'CURR?':
        return this.limitA;
      case 'MEAS:VOLT?':
        return this.output.volts;
      case 'MEAS:CURR?':
        return this.output.amps;
      default:
        return undefined;
    }
  }
  override async ask(query: string): Promise<string> {
    const answer = await super.ask(query);
    return query.trim().toUpperCase() === 'OUTP?' ? String(Number(answer)) : answer;
  }
}

/** A multimeter whose probe lies where the bench says. */
export class SimulatedMultimeter extends Simulated {
  private readonly random: Random;

  constructor(
    private readonly probed: () => Probed,
    seed = 1,
  ) {
    super();
    this.random = seededRandom(seed);
  }

  protected obey = (command: string): boolean => command === '*RST';

  protected answer(query: string): number | undefined {
    const spread = 1 + SPREAD * normalDraw(this.random);
    switch (query) {
      case 'MEAS:VOLT:DC?':
        return this.probed().volts * spread;
      case 'MEAS:RES?':
        return this.probed().ohm * spread;
      case 'MEAS:DIOD?':
        return this.probed().dropV * spread;
      default:
        return undefined;
    }
  }
}
