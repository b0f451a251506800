/** What the owner's story can tell of what happened to a device. */
export const HISTORY_FLAGS = ['unknownCharger', 'liquid', 'fall', 'bend', 'earlierRepair'] as const;
export type HistoryFlag = (typeof HISTORY_FLAGS)[number];
