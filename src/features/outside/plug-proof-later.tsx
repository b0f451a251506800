'use client';

import dynamic from 'next/dynamic';

/** The plug ways of the proof bring their script, with every reader of meters' files, when they are shown. */
export const PlugProof = dynamic(() => import('./plug-proof').then((m) => m.PlugProof));
