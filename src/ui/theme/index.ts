import { createSystem, defaultConfig, defineConfig } from '@chakra-ui/react';
import { PALETTE } from './palette';

const colours = Object.fromEntries(
  Object.entries(PALETTE).map(([name, { light, dark }]) => [name, { value: { base: light, _dark: dark } }]),
);

const config = defineConfig({
  cssVarsPrefix: 'u',
  globalCss: {
    'html, body': {
      bg: 'paper',
      color: 'ink',
      fontFamily: 'body',
      fontSize: '15px',
      lineHeight: '1.4',
      height: '100%',
      _print: { bg: 'white', color: 'black' },
    },
    'html[data-large] body': { fontSize: '19px' },
    '*:focus-visible': { outline: '2px solid', outlineColor: 'copper', outlineOffset: '2px' },
    'input, button, select, textarea': { font: 'inherit', color: 'inherit' },
  },
  theme: {
    tokens: {
      fonts: {
        body: { value: 'var(--font-text), "Liberation Sans", sans-serif' },
        heading: { value: 'var(--font-text), "Liberation Sans", sans-serif' },
        mono: { value: 'var(--font-figures), "Liberation Mono", monospace' },
      },
      radii: { xs: { value: '1px' }, sm: { value: '2px' }, md: { value: '2px' }, lg: { value: '2px' } },
      shadows: { none: { value: 'none' } },
    },
    semanticTokens: { colors: colours },
  },
});

/** Chakra's system with the house palette; every colour of the interface comes from here. */
export const system = createSystem(defaultConfig, config);
