/** The nine stages of the path, in order. */
export const STAGES = [
  { id: 'arrive', name: 'Arrive' },
  { id: 'outside', name: 'Outside' },
  { id: 'probe', name: 'Probe' },
  { id: 'decide', name: 'Decide' },
  { id: 'heat', name: 'Heat' },
  { id: 'balls', name: 'Balls' },
  { id: 'image', name: 'Image' },
  { id: 'prove', name: 'Prove' },
  { id: 'close', name: 'Close' },
] as const;

export type StageId = (typeof STAGES)[number]['id'];
