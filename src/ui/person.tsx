'use client';

import { createContext, useContext, type ReactNode } from 'react';

/** Who is signed in, as the strip shows it; undefined in a shop without accounts. */
export interface SignedIn {
  readonly name: string;
  readonly bench: string;
}

const PersonContext = createContext<SignedIn | undefined>(undefined);

export const PersonProvider = ({ person, children }: { person: SignedIn | undefined; children: ReactNode }) => (
  <PersonContext value={person}>{children}</PersonContext>
);

export const useSignedIn = (): SignedIn | undefined => useContext(PersonContext);
