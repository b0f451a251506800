'use client';

import dynamic from 'next/dynamic';

/** The plan is what the page is mostly opened for: its other views bring their script when they are shown. */
export const BakeWork = dynamic(() => import('./bake-work').then((m) => m.BakeWork));
export const GoalsWork = dynamic(() => import('./goals-work').then((m) => m.GoalsWork));
export const TranslateWork = dynamic(() => import('./translate-work').then((m) => m.TranslateWork));
