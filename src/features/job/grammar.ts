import { grammarForms } from '@/core/command-line';
import { Predictor, interpretReading } from '@/core/diagnose';
import { completeEntry, isQuestion, JOB_GRAMMAR, parseEntry, type EntryMode, type JobView } from '@/core/job';
import { problemText } from '@/core/result';
import type { BenchPlace } from '@/core/units';
import type { Echo } from '@/ui';

/** What the entry line of a job knows while it is typed in. It comes after the page: the whole diagnosis stands behind it. */

export const FORMS = grammarForms(JOB_GRAMMAR);

export { isQuestion };

/** What a line would mean, a reading with what it says about the board. */
export function echoOf({ board, state, references }: JobView, text: string, mode: EntryMode, place: BenchPlace): Echo {
  const entry = parseEntry(board, state, text, mode, place);
  if (!entry.ok) return { message: problemText(entry.problems), state: 'problem' };
  const { command, echo } = entry.value;
  if (command.do !== 'record' || command.body.kind !== 'reading') return { message: echo, state: 'plain' };
  const { measurement, value } = command.body;
  const meaning = interpretReading(Predictor.of(board), measurement, value, new Set(state.absent), references);
  return { message: meaning.message ? `${echo}: ${meaning.message}` : echo, state: meaning.state };
}

export const completionsOf = ({ board, state }: JobView, text: string): string[] => completeEntry(board, state, text);
