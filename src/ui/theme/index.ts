import { createSystem, defaultBaseConfig, defineConfig, defineRecipe } from '@chakra-ui/react';
import { breakpoints, cssVarsRoot, globalCss, keyframes, semanticTokens, tokens } from '@chakra-ui/react/theme';
import { PALETTE } from './palette';

/** As high as a fingertip. Source: WCAG 2.2, 2.5.5 Target Size (Enhanced), 44 CSS px. */
const FINGER = '44px';
const COARSE = '@media (pointer: coarse)';

const colours = Object.fromEntries(
  Object.entries(PALETTE).map(([name, { light, dark }]) => [name, { value: { base: light, _dark: dark } }]),
);

/** The library's scales and reset without its recipes: of those for some sixty components the house uses three. */
const scales = defineConfig({
  preflight: true,
  cssVarsRoot,
  globalCss,
  theme: { breakpoints, keyframes, tokens, semanticTokens },
});

const recipes = {
  link: defineRecipe({
    base: { display: 'inline-flex', alignItems: 'center', gap: '1.5', cursor: 'pointer' },
    variants: {
      variant: {
        plain: {
          _hover: { textDecoration: 'underline', textUnderlineOffset: '3px', textDecorationColor: 'currentColor/20' },
        },
      },
    },
    defaultVariants: { variant: 'plain' },
  }),
  heading: defineRecipe({ base: { fontFamily: 'heading', fontWeight: '600', fontSize: 'xl', lineHeight: '1.875rem' } }),
  kbd: defineRecipe({
    base: {
      display: 'inline-flex',
      alignItems: 'center',
      flexShrink: '0',
      px: '1',
      fontFamily: 'mono',
      whiteSpace: 'nowrap',
      border: '1px solid',
      borderColor: 'rule',
      borderBottomWidth: '2px',
    },
  }),
};

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
    // Sent before its script is awake: see `useAwake`.
    'html:has(> body[data-asleep])': { cursor: 'progress' },
    'body[data-asleep]': { pointerEvents: 'none' },
    'body[data-asleep] :is(a, textarea, input:not([type=checkbox]):not([type=radio]):not([type=file]))': {
      pointerEvents: 'auto',
    },
    'html[data-large] body': { fontSize: '19px' },
    '*:focus-visible': { outline: '2px solid', outlineColor: 'copper', outlineOffset: '2px' },
    'input, button, select, textarea': { font: 'inherit', color: 'inherit' },
    // Under a finger everything that is pressed is as high as a fingertip; links in running text stay in their line.
    'button, select, textarea, input:not([type=checkbox]):not([type=radio]):not([type=file])': {
      [COARSE]: { minHeight: FINGER },
    },
    'nav a, label:has(> input[type=checkbox]), label:has(> input[type=radio])': {
      [COARSE]: { minHeight: FINGER, display: 'inline-flex', alignItems: 'center' },
    },
    'input[type=checkbox], input[type=radio]': {
      accentColor: 'var(--u-colors-copper)',
      [COARSE]: { minWidth: '24px', minHeight: '24px' },
    },
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
    recipes,
  },
});

/** Chakra's system with the house palette; every colour of the interface comes from here. */
export const system = createSystem(defaultBaseConfig, scales, config);
