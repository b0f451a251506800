'use client';

import { usePlace } from '@/ui';

/** Days and hours of a plan as they are where the bench stands. @param nowAt when the plan was made. */
export function useDayClock(nowAt: string) {
  const { timeZone } = usePlace().place;
  const shown = (options: Intl.DateTimeFormatOptions) => {
    const format = new Intl.DateTimeFormat('en-GB', { timeZone, ...options });
    return (at: string): string => format.format(Date.parse(at));
  };
  return {
    time: shown({ hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }),
    day: shown({ weekday: 'short', day: 'numeric', month: 'short' }),
    /** The moment so many minutes from then. */
    at: (min: number): string => new Date(Date.parse(nowAt) + min * 60_000).toISOString(),
  };
}
