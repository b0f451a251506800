import { InstrumentProblem, figureOf, outputStateOf, type OutputState } from './answers';
import type { SupplyDialect } from './definition';
import { STANDARD_SUPPLY } from './dialects';
import type { TextInstrument } from './text-instrument';

/** What is read back may differ by a supply's own steps: so much of it, and a floor in V or A. Engineering estimate. */
const READ_BACK_SHARE = 0.01;
const READ_BACK_FLOOR = 0.01;

/** A bench supply with one output, by its dialect. */
export class BenchSupply {
  constructor(
    private readonly instrument: TextInstrument,
    private readonly dialect: SupplyDialect = STANDARD_SUPPLY.dialect as SupplyDialect,
  ) {}

  /** Sets level and limit, and reads both back: an output is never switched on over a limit that was not taken. */
  async set(volts: number, limitA: number): Promise<void> {
    const { setVolts, setLimit, askVolts, askLimit } = this.dialect;
    await this.instrument.tell(this.withFigure(setVolts, volts));
    await this.instrument.tell(this.withFigure(setLimit, limitA));
    await this.holds(askVolts, 'V', volts);
    await this.holds(askLimit, 'A', limitA);
  }

  /** Switches, and asks back: an output that does not say what it was told is a problem in words. */
  async switch(on: boolean): Promise<void> {
    await this.instrument.tell(on ? this.dialect.on : this.dialect.off);
    const state = await this.state();
    if (state !== (on ? 'on' : 'off'))
      throw new InstrumentProblem(
        `Expected the output to be ${on ? 'on' : 'off'}; the supply says ${state === 'unknown' ? 'nothing clear' : `it is ${state}`}. Look at the supply itself.`,
      );
  }
  /** What the supply says of its output. Nothing is measured in ohms unless it is known to be off. */
  async state(): Promise<OutputState> {
    const { askState, onSays, offSays } = this.dialect;
    return outputStateOf(await this.surely(askState), onSays, offSays);
  }
  /** What really leaves it; below its set volts it limits the current. */
  async output(): Promise<{ readonly volts: number; readonly amps: number }> {
    const { measureVolts, measureAmps } = this.dialect;
    const volts = figureOf(await this.instrument.ask(measureVolts), measureVolts, 'V');
    return { volts, amps: figureOf(await this.instrument.ask(measureAmps), measureAmps, 'A') };
  }
  /** Starts, or feeds, the supply's own watchdog, where it has one: its output goes off after so many seconds of silence. */
  async watch(seconds: number): Promise<boolean> {
    const { watchdog } = this.dialect;
    if (watchdog === undefined) return false;
    await this.instrument.tell(watchdog.replace('{value}', String(seconds)));
    return true;
  }
  /** What switches it off, as it is sent: for whoever has to send it when this page is gone. */
  get offCommand(): string {
    return this.dialect.off;
  }

  private surely(query: string): Promise<string> {
    return this.instrument.askSurely?.(query) ?? this.instrument.ask(query);
  }
  private withFigure(command: string, value: number): string {
    const { decimals, decimalComma } = this.dialect;
    const figure = value.toFixed(decimals);
    return command.replace('{value}', decimalComma ? figure.replace('.', ',') : figure);
  }
  private async holds(query: string, quantity: 'V' | 'A', wanted: number): Promise<void> {
    const got = figureOf(await this.surely(query), query, quantity);
    if (Math.abs(got - wanted) > READ_BACK_SHARE * wanted + READ_BACK_FLOOR)
      throw new InstrumentProblem(
        `Expected ${wanted.toFixed(2)} ${quantity} to be set; the supply reads back ${got.toFixed(2)} ${quantity}. Its output stays as it was.`,
      );
  }
}
