import { meterReads, type Measurement } from '@/core/diagnose';
import { parseEntry, type EntryMode, type JobView } from '@/core/job';

/** The measurement that a stem asks for, where a meter reads it. */
export function dueMeasurement(job: JobView, stem: string | undefined, mode: EntryMode): Measurement | undefined {
  if (stem === undefined) return undefined;
  const entry = parseEntry(job.board, job.state, `${stem}1`, mode);
  if (!entry.ok || entry.value.command.do !== 'record') return undefined;
  const { body } = entry.value.command;
  return body.kind === 'reading' && meterReads(body.measurement) ? body.measurement : undefined;
}
