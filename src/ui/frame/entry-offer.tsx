'use client';

import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ReactNode,
  type RefObject,
} from 'react';

/** Where an offered text comes from, as the page that takes it knows it; what is typed has none. */
export type EntryOrigin = Readonly<Record<string, string>> & { readonly kind: string };

interface Offer {
  readonly text: string;
  readonly origin?: EntryOrigin;
  readonly stamp: number;
  /** Kept at once, as if Enter had been pressed. */
  readonly take: boolean;
}

interface Offering {
  readonly offer?: Offer;
  readonly offerText: (text: string, options?: { readonly take?: boolean; readonly origin?: EntryOrigin }) => void;
  /** What the foot pedal does while the line is empty, where something has taken it. */
  readonly pedalRef: RefObject<(() => void) | undefined>;
  /** Whether something has: a finger presses what a foot cannot reach. */
  readonly hasPedal: boolean;
  readonly setHasPedal: (has: boolean) => void;
}

const OfferContext = createContext<Offering>({
  offerText: () => {},
  pedalRef: { current: undefined },
  hasPedal: false,
  setHasPedal: () => {},
});

/** Lets a click anywhere in the frame put a text into the entry line, and an instrument take the foot pedal. */
export function EntryOfferProvider({ children }: { children: ReactNode }) {
  const [offer, setOffer] = useState<Offer>();
  const pedalRef = useRef<(() => void) | undefined>(undefined);
  const [hasPedal, setHasPedal] = useState(false);
  const offerText = useCallback<Offering['offerText']>(
    (text, { take = false, origin } = {}) =>
      setOffer((last) => ({ text, take, origin, stamp: (last?.stamp ?? 0) + 1 })),
    [],
  );
  const value = useMemo(() => ({ offer, offerText, pedalRef, hasPedal, setHasPedal }), [offer, offerText, hasPedal]);
  return <OfferContext value={value}>{children}</OfferContext>;
}

export const useEntryOffer = (): Offering => useContext(OfferContext);

/** Takes the foot pedal as long as there is something for it to do. */
export function useEntryPedal(press: (() => void) | undefined): void {
  const { pedalRef, setHasPedal } = useContext(OfferContext);
  useEffect(() => {
    if (!press) return;
    pedalRef.current = press;
    setHasPedal(true);
    return () => {
      // Another part of the page may have taken it meanwhile.
      if (pedalRef.current !== press) return;
      pedalRef.current = undefined;
      setHasPedal(false);
    };
  }, [pedalRef, setHasPedal, press]);
}
