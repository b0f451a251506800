'use client';

import dynamic from 'next/dynamic';

/** The instruments in the sidebar come after the page: they need the diagnosis and every dialect. */
export const HandPart = dynamic(() => import('./instruments').then((m) => m.HandPart), { ssr: false });
export const InstrumentsPart = dynamic(() => import('./instruments').then((m) => m.InstrumentsPart), { ssr: false });
