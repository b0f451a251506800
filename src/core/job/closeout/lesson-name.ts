import type { JobNumber } from '../../identities';

/** Under this name the bench keeps what a job taught; each time it is closed anew has one of its own. */
export const lessonName = (number: JobNumber, timesBack: number): string =>
  timesBack === 0 ? `job ${number}` : `job ${number}, time ${timesBack + 1}`;
