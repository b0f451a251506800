'use client';

import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { dayIn, moneyIn, NOWHERE, type BenchPlace } from '@/core/units';

const PlaceContext = createContext<BenchPlace>(NOWHERE);

/** Days and money as they are where the bench stands; the server and the browser show the same. */
export const PlaceProvider = ({ place, children }: { place: BenchPlace; children: ReactNode }) => (
  <PlaceContext value={place}>{children}</PlaceContext>
);

export function usePlace() {
  const place = useContext(PlaceContext);
  return useMemo(
    () => ({
      place,
      day: (iso: string): string => dayIn(place, iso),
      money: (amount: number): string => moneyIn(place, amount),
    }),
    [place],
  );
}

/** An amount of the bench's money. */
export const Money = ({ amount }: { amount: number }) => <>{usePlace().money(amount)}</>;
