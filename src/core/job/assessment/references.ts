import { comparesWithGoodBoards, measurementId } from '../../diagnose';
import type { ReferenceReading } from '../../reference';
import { lessonName } from '../closeout/lesson-name';
import type { JobView } from './view';

/**
 * What a job that was proven leaves as known-good readings: the newest figure of each point on the board as it is now,
 * those that read badly left out. None before the job is closed as repaired.
 */
export function referencesFromJob(job: JobView): ReferenceReading[] {
  if (job.state.closed?.outcome !== 'repaired') return [];
  const newest = new Map<string, number>();
  for (const r of job.readings) {
    if (!r.current || !comparesWithGoodBoards(r.measurement)) continue;
    const point = measurementId(r.measurement);
    if (r.raw.kind === 'figure' && r.meaning.state !== 'bad') newest.set(point, r.raw.value);
    else newest.delete(point);
  }
  return [...newest].map(([point, value]) => ({
    boardId: job.board.id,
    point,
    value,
    source: lessonName(job.number, job.state.priorClosures.length),
  }));
}
