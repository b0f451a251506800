import { FUNCTION_WORDS, InstrumentProblem, readFigure, shownFigure, type Figure, type Quantity } from './answers';
import type { MeterDialect, MeterFunction } from './definition';
import { MEASURE_METER } from './dialects';
import type { TextInstrument } from './text-instrument';

/** What a meter of the bench reads; amperes are a supply's or a USB meter's. */
export type MeterQuantity = Exclude<Quantity, 'A'>;

/** A reading is settled once so many in a row agree; rule of the house, common practice. */
const AGREEING = 3;
/** They agree within one of the last digit, or this share: a hand meter's own spread. Engineering estimate. */
const AGREE_SHARE = 0.015;
/** So many readings are waited for; a capacitor that charges longer is told. Engineering estimate. */
const MOST_READINGS = 15;
/** A figure below nothing by more than this is a matter of the leads, V or ohm. Engineering estimate. */
const SIGN_FLOOR = 0.01;

/** A multimeter by its dialect: volts and ohms to ground, and the drop in diode mode. */
export class Multimeter {
  constructor(
    private readonly instrument: TextInstrument,
    private readonly dialect: MeterDialect = MEASURE_METER.dialect as MeterDialect,
  ) {}

  get quantities(): MeterQuantity[] {
    return (['V', 'Ω', 'drop'] as const).filter((q) => this.dialect.functions[q]);
  }
  readonly volts = (): Promise<number> => this.settled('V');
  /** Infinity where the input is open. */
  readonly ohm = (): Promise<number> => this.settled('Ω');
  /** Infinity where nothing conducts. */
  readonly dropV = (): Promise<number> => this.settled('drop');

  /**
   * A reading that stands: three in a row that agree, in the function asked for before and after them.
   * @param shown told each single reading as it comes.
   * @throws InstrumentProblem where it does not settle, has the wrong sign, or stands in another function.
   */
  async settled(quantity: MeterQuantity, shown?: (value: number) => void): Promise<number> {
    const fn = this.functionOf(quantity);
    for (const command of fn.set) await this.instrument.tell(command);
    await this.checkFunction(fn, quantity);
    const run: Figure[] = [];
    for (let taken = 0; taken < MOST_READINGS && run.length < AGREEING; taken++) {
      const figure = await this.once(fn, quantity);
      shown?.(figure.value);
      if (!run.every((f) => agree(f, figure))) run.length = 0;
      run.push(figure);
    }
    await this.checkFunction(fn, quantity);
    if (run.length < AGREEING)
      throw new InstrumentProblem(
        `Expected three readings that agree; ${FUNCTION_WORDS[quantity]} still move after ${MOST_READINGS}. Hold the probe still, or let a capacitor charge, and take it again.`,
      );
    const value = run.map((f) => f.value).toSorted((a, b) => a - b)[(AGREEING - 1) / 2];
    if (value < -SIGN_FLOOR)
      throw new InstrumentProblem(
        `Expected a figure above nothing; the meter reads ${String(value)}. Are the leads swapped, or is there still power?`,
      );
    return Math.max(0, value);
  }

  private functionOf(quantity: MeterQuantity): MeterFunction {
    const fn = this.dialect.functions[quantity];
    if (fn) return fn;
    throw new InstrumentProblem(`Expected a meter that reads ${FUNCTION_WORDS[quantity]}; this one does not.`);
  }
  private async checkFunction({ check }: MeterFunction, quantity: MeterQuantity): Promise<void> {
    if (!check) return;
    const answer = await this.instrument.ask(check.ask);
    // Whole words only: an answer that holds two functions' names says neither.
    if (
      !answer
        .toUpperCase()
        .split(/[^A-Z]+/)
        .includes(check.says.toUpperCase())
    )
      throw new InstrumentProblem(
        `Expected the meter in ${FUNCTION_WORDS[quantity]}; it says it stands in “${answer}”. Nothing was taken.`,
      );
  }
  private async once(fn: MeterFunction, quantity: MeterQuantity): Promise<Figure> {
    if (fn.ask !== undefined) return readFigure(await this.instrument.ask(fn.ask), fn.ask, quantity);
    if (!this.instrument.hear) throw new InstrumentProblem('Expected a line that talks by itself.');
    return shownFigure(await this.instrument.hear(), quantity, this.marks());
  }
  private marks(): (readonly [MeterQuantity, string])[] {
    return this.quantities.flatMap((q) => this.dialect.functions[q]!.marks.map((m) => [q, m] as const));
  }
}

const agree = (a: Figure, b: Figure): boolean =>
  a.value === b.value ||
  Math.abs(a.value - b.value) <= Math.max(a.step, b.step, AGREE_SHARE * Math.min(Math.abs(a.value), Math.abs(b.value)));
