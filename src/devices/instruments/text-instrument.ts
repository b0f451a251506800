/**
 * An instrument that is asked and told in lines of text, in the style of IEEE 488.2 and SCPI-1999: a query ends with `?` and
 * has one line of answer; anything else has none.
 */
export interface TextInstrument {
  ask(query: string): Promise<string>;
  tell(command: string): Promise<void>;
}

/** A reply that is not what was asked for. */
export class InstrumentProblem extends Error {}

/** SCPI-1999, 7.2.1: the figure that stands for an overload or an open input. */
const OVERLOAD = 9.9e37;

async function figure(instrument: TextInstrument, query: string): Promise<number> {
  const answer = await instrument.ask(query);
  const value = Number(answer);
  if (answer.trim() === '' || Number.isNaN(value))
    throw new InstrumentProblem(`Expected a figure for ${query}; the instrument answered “${answer}”.`);
  return Math.abs(value) >= OVERLOAD ? Infinity : value;
}

/** A multimeter: volts and ohms to ground, and the drop in diode mode. */
export class Multimeter {
  constructor(private readonly instrument: TextInstrument) {}

  readonly identify = (): Promise<string> => this.instrument.ask('*IDN?');
  readonly volts = (): Promise<number> => figure(this.instrument, 'MEAS:VOLT:DC?');
  /** Infinity where the input is open. */
  readonly ohm = (): Promise<number> => figure(this.instrument, 'MEAS:RES?');
  /** Infinity where nothing conducts. */
  readonly dropV = (): Promise<number> => figure(this.instrument, 'MEAS:DIOD?');
}

/** A bench supply with one output. */
export class BenchSupply {
  constructor(private readonly instrument: TextInstrument) {}

  readonly identify = (): Promise<string> => this.instrument.ask('*IDN?');

  async set(volts: number, limitA: number): Promise<void> {
    await this.instrument.tell(`VOLT ${volts.toFixed(3)}`);
    await this.instrument.tell(`CURR ${limitA.toFixed(3)}`);
  }
  async switch(on: boolean): Promise<void> {
    await this.instrument.tell(`OUTP ${on ? 'ON' : 'OFF'}`);
  }
  readonly isOn = async (): Promise<boolean> => (await this.instrument.ask('OUTP?')).trim() === '1';
  /** What really leaves it; below its set volts it limits the current. */
  async output(): Promise<{ readonly volts: number; readonly amps: number }> {
    const volts = await figure(this.instrument, 'MEAS:VOLT?');
    return { volts, amps: await figure(this.instrument, 'MEAS:CURR?') };
  }
}
