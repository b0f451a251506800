import { RateLimiterMemory, type RateLimiterRes } from 'rate-limiter-flexible';

/** So many requests of a kind in so many seconds, by one client. */
interface Rate {
  readonly points: number;
  readonly duration: number;
}

/**
 * What a bench may ask in a minute. Entries: a pedal and two instruments at once stay under five a second; pages: a page brings some thirty
 * requests, and somebody who leafs through twenty pages in a minute is quick. Engineering estimates, with three times that to spare.
 */
const WRITES: Rate = { points: 900, duration: 60 };
const MOST_READS = 2400;
const READS: Rate = { points: readsOf(process.env.UNISOLDA_READS_A_MINUTE), duration: 60 };

/** A shop with a slow machine may allow less. Anything that is no positive number leaves it as it is. */
export function readsOf(text: string | undefined): number {
  const asked = Math.floor(Number(text));
  return asked > 0 && asked <= MOST_READS ? asked : MOST_READS;
}

/** Counts what each client asks; in memory, for as long as a count matters. */
export class Rates {
  private readonly writes: RateLimiterMemory;
  private readonly reads: RateLimiterMemory;

  constructor(writes: Rate = WRITES, reads: Rate = READS) {
    this.writes = new RateLimiterMemory(writes);
    this.reads = new RateLimiterMemory(reads);
  }

  /** @returns the seconds that a client has to wait; 0 where it may go on. @param client who is signed in, or an address. */
  async waitS(client: string, method: string): Promise<number> {
    const limiter = method === 'GET' || method === 'HEAD' ? this.reads : this.writes;
    try {
      await limiter.consume(client);
      return 0;
    } catch (refused) {
      return Math.max(1, Math.ceil((refused as RateLimiterRes).msBeforeNext / 1000));
    }
  }
}

/** What somebody is told who asks too much. */
export const tooMany = (waitS: number): string =>
  `Expected fewer requests from one bench; try again in ${waitS} s. Nothing was kept of this one.`;
