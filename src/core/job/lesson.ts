import { partByRef } from '../board';
import type { Report } from '../parts';
import type { ReferenceReading } from '../reference';
import { referencesFromJob } from './references';
import { kindsAtFault } from './records';
import type { JobView } from './view';

/** What a closed job taught, before anybody keeps it. */
export interface Lesson {
  /** Readings of the board as it was proven. */
  readonly references: readonly ReferenceReading[];
  /** Which chip worked where, with the functions that were tried. */
  readonly reports: readonly Report[];
  /** In words, one thing a line. */
  readonly words: readonly string[];
}

const NOTHING: Lesson = { references: [], reports: [], words: [] };

/** The lesson of a job: none before it is closed as repaired. */
export function lessonOf(job: JobView): Lesson {
  const { state, board, proof, number } = job;
  if (state.closed?.outcome !== 'repaired') return NOTHING;
  const references = referencesFromJob(job);
  const { route } = state;
  const reports: Report[] =
    route && route.typeId !== 'none' && state.replaced.includes(route.ref)
      ? [
          {
            ...{ typeId: route.typeId, boardId: board.id, ref: route.ref, source: 'own', worked: true },
            date: state.closed.at.slice(0, 10),
            functions: Object.fromEntries(
              proof.functions.flatMap((f) => (f.works === undefined ? [] : [[f.id, f.works]])),
            ),
            note: `job ${number}`,
          },
        ]
      : [];
  const kinds = [...kindsAtFault(board, state)];
  const parts = state.replaced.filter((name) => partByRef(board, name.replace('/image', '')));
  return {
    references,
    reports,
    words: [
      ...(references.length > 0
        ? [`${references.length} readings after the repair, as known good for this revision`]
        : []),
      ...reports.map(
        (r) => `${r.typeId} on ${r.ref} worked: ${Object.keys(r.functions).join(', ') || 'nothing tried'}`,
      ),
      ...(kinds.length > 0 ? [`${parts.join(', ')} at fault: counts in how often each kind of part fails`] : []),
    ],
  };
}
