import type { OldData } from '../../../stored';

/** An upcaster that drops what was computed when the entry was made: it is computed where it is shown. */
export const without =
  (...names: readonly string[]) =>
  (data: OldData): OldData =>
    Object.fromEntries(Object.entries(data).filter(([name]) => !names.includes(name)));
