import { importFile, type MeterTable } from '..';
import type { ThermoLog } from '../../calibration';
import type { WrittenTable } from './random-table';

/** What became of a written table: read right, asked and then right, refused, or wrong without a word. */
export interface Verdict {
  readonly kind: 'right' | 'asked' | 'refused' | 'wrong';
  readonly why: string;
}

const MOST_QUESTIONS = 12;

/** The right answer to a question, from what was written. */
function answerTo(id: string, choices: readonly string[], table: WrittenTable): string | undefined {
  const { answers } = table;
  if (id === 'importer') return choices.find((c) => c === (table.name === 'meter.csv' ? 'meter' : 'thermocouple'));
  if (id === 'voltage' || id === 'current' || id === 'time')
    return choices.find((c) => c === answers[id]) ?? choices[0];
  if (id === 'decimal') return table.style[2] === ',' ? 'comma' : 'point';
  if (id.startsWith('form:')) return table.style.includes('mm:ss.s') ? 'mm:ss' : 'hh:mm';
  if (!id.startsWith('unit:')) return undefined;
  if (answers.probeUnit && choices.includes('°C')) return answers.probeUnit;
  if (choices.includes('s')) return answers.timeUnit.replace('us', 'µs') || 's';
  return choices.includes('V') ? answers.voltUnit : answers.ampUnit;
}

/** Reads a table back, answers what is asked, and holds the result against what was written. */
export function verdictOf(table: WrittenTable): Verdict {
  const answers: Record<string, string> = {};
  const asked: string[] = [];
  for (let round = 0; round < MOST_QUESTIONS; round++) {
    const { importer, outcome } = importFile({ name: table.name, bytes: table.bytes }, answers);
    if (outcome.kind === 'refused') return { kind: 'refused', why: outcome.problems.map((p) => p.message).join(' ') };
    const [question] = outcome.questions;
    if (!question) {
      const wanted = table.name === 'meter.csv' ? 'meter' : 'thermocouple';
      if (importer !== wanted) return { kind: 'wrong', why: `taken for ${importer}` };
      const off =
        importer === 'meter'
          ? meterOff(outcome.value as MeterTable, table)
          : thermoOff(outcome.value as ThermoLog, table);
      if (off) return { kind: 'wrong', why: `${off}; asked ${asked.join(', ')}` };
      return asked.length > 0 ? { kind: 'asked', why: asked.join(', ') } : { kind: 'right', why: '' };
    }
    asked.push(question.id);
    const answer = answerTo(question.id, question.choices, table);
    if (answer === undefined) return { kind: 'refused', why: `no answer to ${question.id}: ${question.why}` };
    answers[question.id] = answer;
  }
  return { kind: 'refused', why: `more than ${MOST_QUESTIONS} questions: ${asked.join(', ')}` };
}

/** Times of samples that share one are spread over it: up to a whole second off. */
const timeTolerance = (table: WrittenTable): number =>
  /hh:mm:ss(?!\.)|am-pm/.test(table.style.split('\n')[0]) ? 1.01 : 0.06;

function meterOff({ trace }: MeterTable, table: WrittenTable): string | undefined {
  const volts = table.columns.find((c) => c.role === 'voltage')!.values;
  const amps = table.columns.find((c) => c.role === 'current')!.values;
  const there = volts.map((_, i) => i).filter((i) => !Number.isNaN(volts[i] + amps[i]));
  if (trace.timesS.length !== there.length) return `${trace.timesS.length} samples in the place of ${there.length}`;
  const start = table.seconds[there[0]];
  for (let k = 0; k < there.length; k++) {
    const i = there[k];
    if (Math.abs(trace.volts[k] - volts[i]) > 0.0011) return `volts ${trace.volts[k]} in the place of ${volts[i]}`;
    if (Math.abs(trace.amps[k] - amps[i]) > 0.00011) return `amps ${trace.amps[k]} in the place of ${amps[i]}`;
    if (Math.abs(trace.timesS[k] - (table.seconds[i] - start)) > timeTolerance(table))
      return `time ${trace.timesS[k]} in the place of ${table.seconds[i] - start}`;
  }
  return undefined;
}

function thermoOff(log: ThermoLog, table: WrittenTable): string | undefined {
  if (log.probes.length !== table.columns.length)
    return `${log.probes.length} probes in the place of ${table.columns.length}`;
  if (log.timesS.length !== table.seconds.length)
    return `${log.timesS.length} rows in the place of ${table.seconds.length}`;
  for (let i = 0; i < table.seconds.length; i++)
    if (Math.abs(log.timesS[i] - table.seconds[i]) > timeTolerance(table))
      return `time ${log.timesS[i]} in the place of ${table.seconds[i]}`;
  const used = new Set<number>();
  for (const probe of log.probes) {
    const k = table.columns.findIndex(
      (c, n) =>
        !used.has(n) &&
        c.values.every((v, i) =>
          Number.isNaN(v) ? Number.isNaN(probe.readC[i]) : Math.abs(v - probe.readC[i]) < 0.02,
        ),
    );
    if (k < 0) return `a probe that is none of those written: ${probe.name} ${probe.readC.slice(0, 3).join(' ')}`;
    used.add(k);
  }
  return undefined;
}
