'use client';

import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from 'react';

interface Offering {
  readonly offer?: { readonly text: string; readonly stamp: number };
  readonly offerText: (text: string) => void;
}

const OfferContext = createContext<Offering>({ offerText: () => {} });

/** Lets a click anywhere in the frame put a text into the entry line. */
export function EntryOfferProvider({ children }: { children: ReactNode }) {
  const [offer, setOffer] = useState<Offering['offer']>();
  const offerText = useCallback((text: string) => setOffer((last) => ({ text, stamp: (last?.stamp ?? 0) + 1 })), []);
  const value = useMemo(() => ({ offer, offerText }), [offer, offerText]);
  return <OfferContext value={value}>{children}</OfferContext>;
}

export const useEntryOffer = (): Offering => useContext(OfferContext);
