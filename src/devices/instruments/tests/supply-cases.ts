import type { Source } from '../interlock';

/** What a supply may answer to "is the output on?", or do instead of an answer. */
export const SUPPLY_STATES = ['on', 'off', 'unknown', 'lost', 'throws'] as const;
export type SupplyCase = (typeof SUPPLY_STATES)[number];

/** A supply that is asked before and after a reading. */
export function supplyIn(name: string, answers: readonly [SupplyCase, SupplyCase]): Source {
  let asked = 0;
  return {
    name,
    async state() {
      const answer = answers[asked++];
      if (answer === 'throws') throw new Error('unplugged');
      return answer;
    },
  };
}
