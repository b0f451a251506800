import type { Board } from '../../board';
import { completeLine, parseLine, readLine, type Grammar } from '../../command-line';
import {
  Predictor,
  entryStem,
  inSmallLetters,
  measurementCommands,
  measurementTitle,
  placeNames,
  readingName,
  valueLabel,
  type Measurement,
  type MeasurementEntry,
} from '../../diagnose';
import { fail, ok, type Result } from '../../result';
import { record } from '../decide/command';
import { decide } from '../decide/decide';
import type { JobState } from '../log';
import { defineJobLine, type Entry, type EntryMode, type JobLine, type JobLineContext } from './context';
import { recordLines } from './record-lines';
import { siteLines } from './site-lines';
import { workLines } from './work-lines';

/** A reading with its echo. */
function readingEntry(board: Board, { measurement: m, value, title, echo }: MeasurementEntry): Entry {
  const measurement = m as Measurement;
  return {
    command: record({ kind: 'reading', measurement, value }),
    echo: echo ?? `${title ?? measurementTitle(board, measurement)}, ${valueLabel(measurement, value)}`,
  };
}

/** Lines that the measurement kinds define, as lines of the job. */
const readingLines: readonly JobLine[] = measurementCommands.map((command) => ({
  ...command,
  parse(context, line) {
    const entry = command.parse(context, line);
    return entry.ok ? ok(readingEntry(context.board, entry.value)) : entry;
  },
}));

const fixLine = defineJobLine({
  name: 'fix',
  usage: [{ example: 'fix c14 6.4k', help: 'corrects the last reading there; the old one stays in the record' }],
  parse: (context, { rest }) => parseCorrection(context, rest),
  complete: (context, words) => completeLine(JOB_GRAMMAR, context, words.slice(1).join(' ')),
});

function parseCorrection(context: JobLineContext, text: string): Result<Entry> {
  const entry = parseLine(JOB_GRAMMAR, context, text);
  if (!entry.ok) return entry;
  const { command, echo } = entry.value;
  if (command.do !== 'record' || command.body.kind !== 'reading')
    return fail('Expected a reading after "fix", such as: fix c14 6.4.');
  const { board, state } = context;
  const name = readingName(board, command.body.measurement);
  const old = state.readings.findLast((r) => readingName(board, r.measurement) === name);
  if (!old) return fail(`Expected a reading that was taken before; ${name} has none yet.`);
  return ok({
    command: record(command.body, old.seq),
    echo: `Corrects ${name} from ${valueLabel(old.measurement, old.value)}: ${echo}`,
  });
}

const whyLine = defineJobLine({
  name: 'why',
  usage: [{ example: 'why tp7', help: 'what that test would tell and take, against the one that is proposed' }],
  parse(context, { rest }) {
    const measurement = measurementOf(context, rest);
    if (!measurement) return fail(`Expected a test of this board after "why", such as: why tp7; got "${rest}".`);
    return ok({
      command: { do: 'weigh', measurement },
      echo: `Weighs it against what is proposed: ${measurementTitle(context.board, measurement)}`,
    });
  },
  complete: (context, words) => completeLine(JOB_GRAMMAR, context, words.slice(1).join(' ')),
});

/** True for a line that asks and keeps nothing. */
export const isQuestion = (text: string): boolean => readLine(text).head === whyLine.name;

/** The test that a line means, with a value or without one. */
function measurementOf(context: JobLineContext, text: string): Measurement | undefined {
  // What a figure alone would be there: ohms, or volts while proving.
  for (const line of [text, `${text} 1`]) {
    const entry = text === '' ? undefined : parseLine(JOB_GRAMMAR, context, line);
    if (entry?.ok && entry.value.command.do === 'record' && entry.value.command.body.kind === 'reading')
      return entry.value.command.body.measurement;
  }
  const asked = readLine(text).words.join(' ');
  return Predictor.of(context.board).tests.find((m) => entryStem(context.board, m).trim().toLowerCase() === asked);
}

/** Lines that begin with a name of the board come last: whatever begins with no command's word is a place. */
const byWord = (a: JobLine, b: JobLine): number => Number(a.name === 'point') - Number(b.name === 'point');

/** The grammar of the job's entry line. */
export const JOB_GRAMMAR: Grammar<JobLineContext, Entry> = {
  emptyLine: 'a point and a value, such as: tp7 1.8 ohm',
  helpFirst: 'point',
  commands: [...readingLines, fixLine, whyLine, ...workLines, ...siteLines, ...recordLines].sort(byWord),
  names: ({ board }) => inSmallLetters(placeNames(board)),
};

/** Reads one line and says whether it may happen; `docs/entry-line.md` lists the forms. */
export function parseEntry(board: Board, state: JobState, text: string, mode: EntryMode): Result<Entry> {
  const entry = parseLine(JOB_GRAMMAR, { board, state, mode }, text);
  if (!entry.ok) return entry;
  const decided = decide({ board, state }, entry.value.command);
  return decided.ok ? entry : decided;
}

/** Words that can follow what is typed, shortest first. */
export function completeEntry(board: Board, state: JobState, text: string): string[] {
  return completeLine(JOB_GRAMMAR, { board, state, mode: 'ohm' }, text);
}
