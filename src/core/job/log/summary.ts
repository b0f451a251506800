import { foldJob } from './fold';
import type { JobEvent } from './log';
import { runningSoak, type Soak } from './soak';

/** What a list shows of a job without computing its diagnosis. */
export interface LogSummary {
  /** Number of the newest event, undone ones counted; 0 before any. */
  readonly version: number;
  readonly symptom: string;
  /** Serial number, ticket and owner's code, as lists find by them. */
  readonly marks: string;
  /** The pack came in swollen, whether or not it is out by now. */
  readonly swollen: boolean;
  /** The outcome where the last closing still counts. */
  readonly outcome?: string;
  /** ISO 8601; undefined before any event. */
  readonly lastAt?: string;
  /** The soak that runs, in a job that is open. */
  readonly soak?: Soak;
  /** A part was decided to be replaced, at any time. */
  readonly replaces: boolean;
}

export function summariseLog(events: readonly JobEvent[]): LogSummary {
  const { live, closed, soaks, device } = foldJob(events);
  const bodies = live.map((e) => e.body);
  const told = bodies.findLast((b) => b.kind === 'story' || b.kind === 'reopen');
  const story = bodies.findLast((b) => b.kind === 'story');
  const lastAt = events.reduce<string | undefined>(
    (last, e) => (last === undefined || e.at > last ? e.at : last),
    undefined,
  );
  return {
    version: events.reduce((newest, e) => Math.max(newest, e.seq), 0),
    symptom: told && 'symptom' in told ? told.symptom : '',
    marks: device ? [device.serial, device.ticket, device.owner].filter(Boolean).join(' ') : '',
    swollen: story?.kind === 'story' && story.pack === 'swollen',
    outcome: closed?.outcome,
    lastAt,
    soak: closed ? undefined : runningSoak(soaks),
    replaces: events.some((e) => e.body.kind === 'decision' && e.body.action === 'replace'),
  };
}
