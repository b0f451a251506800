import { isStandIn } from '../../board';
import type { ChipId } from '../../identities';
import { clearedPart } from '../../diagnose';
import type { Report } from '../../parts';
import type { ReferenceReading } from '../../reference';
import type { HeatPlan } from '../../heat';
import { isoDayIn, NOWHERE, type BenchPlace } from '../../units';
import { foldRun, runCards, timedMarks } from '../../run';
import type { JobState } from '../log';
import { lessonName } from './lesson-name';
import { referencesFromJob } from '../assessment/references';
import { kindsAtFault } from './records';
import type { JobView } from '../assessment/view';

/** What a closed job taught, before anybody keeps it. */
export interface CloseoutRecord {
  /** Readings of the board as it was proven. */
  readonly references: readonly ReferenceReading[];
  /** Which chip worked where, with the functions that were tried. */
  readonly reports: readonly Report[];
  /** The stock's chip that was fitted and proven: it counts in its lot's share of dead ones. */
  readonly chip?: ChipId;
  /** When the run saw all joints molten: what its station's figures can be held against. */
  readonly mark?: RunMarkSeen;
  /** In words, one thing a line. */
  readonly lines: readonly string[];
}

/** A mark of a run, with what was run, and on which of the bench's stations. */
export interface RunMarkSeen {
  readonly stationId?: string;
  readonly plan: HeatPlan;
  readonly seenS: number;
}

/** When the job's latest run saw all joints molten; none where nobody called it. */
export function runMark({ runEvents }: Pick<JobState, 'runEvents'>): RunMarkSeen | undefined {
  const run = foldRun(runEvents);
  const { plan, stationId } = run?.begin ?? {};
  if (!run || !plan) return undefined;
  const cards = runCards(plan, { ref: plan.partRef, what: '', centrePad: false });
  const swims = timedMarks(run, cards).find((m) => m.mark === 'swims');
  return swims && { stationId, plan, seenS: Math.round(swims.heatS) };
}

/** What a repaired job says of things that are not its board's: the chip from the stock, and the station. */
export function beyondBoard({
  route,
  replaced,
  runEvents,
}: Pick<JobState, 'route' | 'replaced' | 'runEvents'>): Pick<CloseoutRecord, 'chip' | 'mark'> {
  const fitted = route && replaced.includes(route.ref) ? route.supply : undefined;
  const mark = runMark({ runEvents });
  return {
    chip: fitted?.kind === 'chip' ? fitted.chip : undefined,
    mark: mark?.stationId === undefined ? undefined : mark,
  };
}

const NOTHING: CloseoutRecord = { references: [], reports: [], lines: [] };

/** The lesson of a job: none before it is closed as repaired. @param place whose day it was closed on. */
export function closeoutRecordOf(job: JobView, place: BenchPlace = NOWHERE): CloseoutRecord {
  const { state, board, proof, number } = job;
  if (state.closed?.outcome !== 'repaired') return NOTHING;
  // What was read on a board that nobody has named says nothing of any board.
  if (isStandIn(board)) return NOTHING;
  const references = referencesFromJob(job);
  const { route } = state;
  const reports: Report[] =
    route && route.typeId !== 'none' && state.replaced.includes(route.ref)
      ? [
          {
            ...{ typeId: route.typeId, boardId: board.id, ref: route.ref, source: 'own', worked: true },
            date: isoDayIn(place, state.closed.at),
            functions: Object.fromEntries(
              proof.functions.flatMap((f) => (f.works === undefined ? [] : [[f.id, f.works]])),
            ),
            note: lessonName(number, state.priorClosures.length),
          },
        ]
      : [];
  const { chip, mark } = beyondBoard(state);
  const kinds = [...kindsAtFault(board, state)];
  const parts = [...new Set(state.replaced)].filter((key) => clearedPart(board, key));
  return {
    references,
    reports,
    ...(chip !== undefined && { chip }),
    ...(mark && { mark }),
    lines: [
      ...(references.length > 0
        ? [`${references.length} readings after the repair, as known good for this revision`]
        : []),
      ...reports.map(
        (r) => `${r.typeId} on ${r.ref} worked: ${Object.keys(r.functions).join(', ') || 'nothing tried'}`,
      ),
      ...(chip === undefined ? [] : [`${chip} worked: counts in how many of its lot are dead on arrival`]),
      ...(mark ? [`${mark.plan.partRef} swam at ${mark.seenS} s: the station’s figures move to it`] : []),
      ...(kinds.length > 0 ? [`${parts.join(', ')} at fault: counts in how often each kind of part fails`] : []),
    ],
  };
}
