/** One line of a benchmark's report. */
export const section = (title: string): void => console.log(`\n${title}`);
export const note = (text: string): void => console.log(`  ${text}`);
export const ratio = (what: string, value: number, wanted: string): void =>
  console.log(`  ${what}: ${value.toFixed(2)} (wanted ${wanted})`);
