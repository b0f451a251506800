import { problemText, type Problem } from '../core/result';

/** Why something was not kept, for programs; people read the message. */
export type ProblemCode =
  | 'badInput'
  | 'notFound'
  | 'refused'
  | 'needsLead'
  | 'keyReused'
  | 'changedMeanwhile'
  | 'fileGone'
  | 'full'
  | 'busy'
  | 'readOnly'
  | 'damaged';

/** What comes back for everything that is entered: it is on disk, or it is not and the message says why. */
export interface ActionResult {
  readonly saved: boolean;
  /** A question was answered: there was nothing to keep, and nothing went wrong. */
  readonly answered?: boolean;
  readonly message: string;
  readonly code?: ProblemCode;
  /** Number of the entry in its record. */
  readonly seq?: number;
  /** The job that was opened. */
  readonly job?: number;
  /** Each problem with its place, where there are several. */
  readonly problems?: readonly string[];
}

export const saved = (message: string, more: Pick<ActionResult, 'seq' | 'job'> = {}): ActionResult => ({
  saved: true,
  message,
  ...more,
});

export const answered = (message: string): ActionResult => ({ saved: false, answered: true, message });

export const refused = (message: string, code: ProblemCode = 'refused'): ActionResult => ({
  saved: false,
  code,
  message,
});

export const refusedFor = (problems: readonly Problem[], code: ProblemCode = 'refused'): ActionResult =>
  refused(problemText(problems), code);

export const noJob = (number: number): ActionResult =>
  refused(`Expected a job that exists; there is no job ${number}.`, 'notFound');

/** The first thing that a form did not like: where, and what. */
export function firstIssue(error: {
  readonly issues: readonly { readonly path: readonly PropertyKey[]; readonly message: string }[];
}): { readonly first: string; readonly at: string; readonly message: string } {
  const [{ path, message }] = error.issues;
  return { first: String(path[0] ?? ''), at: path.map(String).join('.'), message };
}

/** A value, or the answer that says why there is none. */
export type Or<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly answer: ActionResult };
