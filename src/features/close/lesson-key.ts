/** The key under which a job's report of its chip is kept; the name is that of its lesson. */
export const lessonKey = (name: string): string => `lesson of ${name}`;
