import { InstrumentProblem, figureOf, outputStateOf, type OutputState, type Quantity } from './answers';

/**
 * An instrument that is asked and told in lines of text, in the style of IEEE 488.2 and SCPI-1999: a query ends with `?` and
 * has one line of answer; anything else has none.
 */
export interface TextInstrument {
  ask(query: string): Promise<string>;
  tell(command: string): Promise<void>;
}

/** What is read back may differ by a supply's own steps: so much of it, and a floor in V or A. Engineering estimate. */
const READ_BACK_SHARE = 0.01;
const READ_BACK_FLOOR = 0.01;

const figure = async (instrument: TextInstrument, query: string, quantity: Quantity): Promise<number> =>
  figureOf(await instrument.ask(query), query, quantity);

/** A multimeter: volts and ohms to ground, and the drop in diode mode. */
export class Multimeter {
  constructor(private readonly instrument: TextInstrument) {}

  readonly identify = (): Promise<string> => this.instrument.ask('*IDN?');
  readonly volts = (): Promise<number> => figure(this.instrument, 'MEAS:VOLT:DC?', 'V');
  /** Infinity where the input is open. */
  readonly ohm = (): Promise<number> => figure(this.instrument, 'MEAS:RES?', 'Ω');
  /** Infinity where nothing conducts. */
  readonly dropV = (): Promise<number> => figure(this.instrument, 'MEAS:DIOD?', 'drop');
}

/** A bench supply with one output. */
export class BenchSupply {
  constructor(private readonly instrument: TextInstrument) {}

  readonly identify = (): Promise<string> => this.instrument.ask('*IDN?');

  /** Sets level and limit, and reads both back: an output is never switched on over a limit that was not taken. */
  async set(volts: number, limitA: number): Promise<void> {
    await this.instrument.tell(`VOLT ${volts.toFixed(3)}`);
    await this.instrument.tell(`CURR ${limitA.toFixed(3)}`);
    await this.holds('VOLT?', 'V', volts);
    await this.holds('CURR?', 'A', limitA);
  }

  private async holds(query: string, quantity: 'V' | 'A', wanted: number): Promise<void> {
    const got = await figure(this.instrument, query, quantity);
    if (Math.abs(got - wanted) > READ_BACK_SHARE * wanted + READ_BACK_FLOOR)
      throw new InstrumentProblem(
        `Expected ${wanted.toFixed(2)} ${quantity} to be set; the supply reads back ${got.toFixed(2)} ${quantity}. Its output stays as it was.`,
      );
  }

  async switch(on: boolean): Promise<void> {
    await this.instrument.tell(`OUTP ${on ? 'ON' : 'OFF'}`);
  }
  /** What the supply says of its output. Nothing is measured in ohms unless it is known to be off. */
  readonly state = async (): Promise<OutputState> => outputStateOf(await this.instrument.ask('OUTP?'));
  /** What really leaves it; below its set volts it limits the current. */
  async output(): Promise<{ readonly volts: number; readonly amps: number }> {
    const volts = await figure(this.instrument, 'MEAS:VOLT?', 'V');
    return { volts, amps: await figure(this.instrument, 'MEAS:CURR?', 'A') };
  }
}
