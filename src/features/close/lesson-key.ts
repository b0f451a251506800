/** The key under which a job's report of its chip is kept. */
export const lessonKey = (job: number): string => `lesson of job ${job}`;
