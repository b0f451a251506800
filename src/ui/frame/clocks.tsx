'use client';

import { useEffect, useState } from 'react';
import { Flex, Link } from '@chakra-ui/react';
import { PageLink } from '../parts/page-link';

/** A clock as the bench's server tells it. */
interface Clock {
  readonly job: number;
  readonly startedAt: string;
  readonly minutes: number;
}

const ASK_MS = 20_000;
const TICK_MS = 1000;

/** Clocks that run in any job, each a way to it. */
export function Clocks() {
  const [clocks, setClocks] = useState<readonly Clock[]>([]);
  const [nowMs, setNowMs] = useState(0);
  useEffect(() => {
    const ask = async (): Promise<void> => {
      try {
        const answer = await fetch('/clocks');
        if (answer.ok) setClocks((await answer.json()) as Clock[]);
      } catch {
        // The server is away for a moment: the clocks that are known go on.
      }
    };
    void ask();
    const asking = setInterval(() => void ask(), ASK_MS);
    const ticking = setInterval(() => setNowMs(Date.now()), TICK_MS);
    return () => {
      clearInterval(asking);
      clearInterval(ticking);
    };
  }, []);
  if (clocks.length === 0 || nowMs === 0) return null;
  return (
    <Flex as="nav" aria-label="Running clocks" gap="3" fontFamily="mono" fontSize="14px">
      {clocks.map((clock) => {
        const leftS = clock.minutes * 60 - (nowMs - Date.parse(clock.startedAt)) / 1000;
        return (
          <Link key={clock.job} asChild color={leftS > 0 ? 'ink' : 'copperText'} fontWeight={leftS > 0 ? '400' : '700'}>
            <PageLink href={`/jobs/${clock.job}/prove`}>
              {String(clock.job).padStart(4, '0')} soak {leftS > 0 ? left(leftS) : 'over'}
            </PageLink>
          </Link>
        );
      })}
    </Flex>
  );
}

function left(seconds: number): string {
  const whole = Math.ceil(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}
