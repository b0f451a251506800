import { InstrumentProblem, figureOf, outputStateOf, shownFigure, type Quantity } from './answers';
import type { InstrumentDefinition, MeterDialect, StreamDialect, SupplyDialect } from './definition';
import { readSample } from './stream';
import type { TextInstrument } from './text-instrument';

/**
 * Tries an instrument by its definition before it is used: each function of a meter answers in its form, a supply says clearly whether it
 * is on and what it is set to, a stream has a line with the columns. Nothing is switched on or set but a meter's function.
 * @throws InstrumentProblem with the first thing that is not as the definition says.
 */
export async function selfTest({ name, dialect }: InstrumentDefinition, line: TextInstrument): Promise<void> {
  try {
    if (dialect.kind === 'meter') await tryMeter(dialect, line);
    else if (dialect.kind === 'supply') await trySupply(dialect, line);
    else await tryStream(dialect, line);
  } catch (error) {
    if (!(error instanceof InstrumentProblem)) throw error;
    throw new InstrumentProblem(`It does not speak as “${name}” says. ${error.message}`);
  }
}

async function tryMeter({ functions }: MeterDialect, line: TextInstrument): Promise<void> {
  const entries = Object.entries(functions).filter(([, fn]) => fn !== undefined);
  if (entries.every(([, fn]) => fn.ask === undefined)) return tryTalker(functions, line);
  for (const [quantity, fn] of entries) {
    for (const command of fn.set) await line.tell(command);
    if (fn.check) {
      const said = await line.ask(fn.check.ask);
      if (!said.toUpperCase().includes(fn.check.says.toUpperCase()))
        throw new InstrumentProblem(`Expected “${fn.check.says}” to ${fn.check.ask}; it answered “${said}”.`);
    }
    if (fn.ask === undefined) continue;
    const answer = await line.ask(fn.ask);
    // Volts over range with open leads are no fault of the dialect.
    if (quantity === 'V' && /^\s*[+-]?(o\.?l|9\.9)/i.test(answer)) continue;
    figureOf(answer, fn.ask, quantity as Quantity);
  }
}

/** A meter that talks by itself stands in one function: its line must be one of them. */
async function tryTalker(functions: MeterDialect['functions'], line: TextInstrument): Promise<void> {
  const shown = await line.hear!();
  const marks = (['V', 'Ω', 'drop'] as const).flatMap((q) => (functions[q]?.marks ?? []).map((m) => [q, m] as const));
  const fits = (['V', 'Ω', 'drop'] as const).some((q) => {
    try {
      shownFigure(shown, q, marks);
      return true;
    } catch {
      return false;
    }
  });
  if (!fits) throw new InstrumentProblem(`Expected a figure with its unit; it shows “${shown}”.`);
}

async function trySupply(dialect: SupplyDialect, line: TextInstrument): Promise<void> {
  const said = await line.ask(dialect.askState);
  if (outputStateOf(said, dialect.onSays, dialect.offSays) === 'unknown')
    throw new InstrumentProblem(
      `Expected ${dialect.onSays.join(' or ')}, or ${dialect.offSays.join(' or ')} to ${dialect.askState}; it answered “${said}”.`,
    );
  figureOf(await line.ask(dialect.askVolts), dialect.askVolts, 'V');
  figureOf(await line.ask(dialect.askLimit), dialect.askLimit, 'A');
}

async function tryStream(dialect: StreamDialect, line: TextInstrument): Promise<void> {
  if (dialect.start !== undefined) await line.tell(dialect.start);
  const shown = await line.hear!();
  if (!readSample(dialect, shown))
    throw new InstrumentProblem(
      `Expected ${dialect.columns.length} figures in a line (${dialect.columns.join(', ')}); it sends “${shown}”.`,
    );
}
