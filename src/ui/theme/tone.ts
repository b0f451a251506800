import { PALETTE, type ColourName } from './palette';

const kebab = (name: string): string => name.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`);

/**
 * The house colours as CSS variables, for plain SVG: a drawing has hundreds of shapes, and a styled component for each
 * cost a second of hydration (measured).
 */
export const tone = Object.fromEntries(
  (Object.keys(PALETTE) as ColourName[]).map((name) => [name, `var(--u-colors-${kebab(name)})`]),
) as Record<ColourName, string>;

/** The two faces, likewise. */
export const face = { text: 'var(--u-fonts-body)', figures: 'var(--u-fonts-mono)' } as const;

/** A drawing that fills the positioned box round it. */
export const FILLING = { position: 'absolute', inset: 0, width: '100%', height: '100%' } as const;
