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
  targetKey,
  valueLabel,
  type Measurement,
  type MeasurementEntry,
} from '../../diagnose';
import { fail, ok, type Result } from '../../result';
import { workLabel } from '../assessment/why-not-mine';
import { NOWHERE, type BenchPlace } from '../../units';
import { record, type JobCommand, type JobQuestion } from '../decide/command';
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
  usage: [
    { example: 'why tp7', help: 'what that test would tell and take, against the one that is proposed' },
    { example: 'why replace u4', help: 'the same of work: what it would cure; so too: why touched u4' },
  ],
  parse(context, { rest }) {
    const { board } = context;
    const asked = questionOf(context, rest);
    if (!asked)
      return fail(
        `Expected a test or work on this board after "why", such as: why tp7, or: why replace u4; got "${rest}".`,
      );
    const name = asked.do === 'weigh' ? measurementTitle(board, asked.measurement) : workLabel(board, asked.work);
    return ok({ command: asked, echo: `Weighs it against what is proposed: ${name}` });
  },
  complete: (context, words) => completeLine(JOB_GRAMMAR, context, words.slice(1).join(' ')),
});

/** True for a line that asks and keeps nothing. */
export const isQuestion = (text: string): boolean => readLine(text).head === whyLine.name;

/** The test or work that a line means, a test with a value or without one. */
function questionOf(context: JobLineContext, text: string): JobQuestion | undefined {
  const { head, rest, words } = readLine(text);
  // What a figure alone would be there: ohms, or volts while proving.
  const lines = head === 'replace' ? [`on ${rest} new`] : [text, `${text} 1`];
  for (const line of text === '' ? [] : lines) {
    const entry = parseLine(JOB_GRAMMAR, context, line);
    const found = entry.ok ? askedBy(entry.value.command) : undefined;
    if (found) return found;
  }
  const stem = words.join(' ');
  const measurement = Predictor.of(context.board).tests.find(
    (m) => entryStem(context.board, m).trim().toLowerCase() === stem,
  );
  return measurement && { do: 'weigh', measurement };
}

/** What would be asked about where something was done. */
function askedBy(command: JobCommand): JobQuestion | undefined {
  if (command.do !== 'record') return undefined;
  const { body } = command;
  if (body.kind === 'reading') return { do: 'weigh', measurement: body.measurement };
  if (body.kind === 'partOn' && body.fresh)
    return { do: 'weighWork', work: targetKey({ kind: 'part', ref: body.ref }) };
  return body.kind === 'mended' ? { do: 'weighWork', work: body.what } : undefined;
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

/** Reads one line and says whether it may happen; `docs/entry-line.md` lists the forms. @param place whose clocks a day is typed by. */
export function parseEntry(
  board: Board,
  state: JobState,
  text: string,
  mode: EntryMode,
  place: BenchPlace = NOWHERE,
): Result<Entry> {
  const entry = parseLine(JOB_GRAMMAR, { board, state, mode, place }, text);
  if (!entry.ok) return entry;
  const decided = decide({ board, state }, entry.value.command);
  return decided.ok ? entry : decided;
}

/** Words that can follow what is typed, shortest first. */
export function completeEntry(board: Board, state: JobState, text: string): string[] {
  return completeLine(JOB_GRAMMAR, { board, state, mode: 'ohm', place: NOWHERE }, text);
}
