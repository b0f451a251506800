import nextVitals from 'eslint-config-next/core-web-vitals';
import globals from 'globals';
import tseslint from 'typescript-eslint';

// Colours live in the theme; a literal elsewhere breaks the dim theme.
const noColourLiteral = {
  selector: 'Literal[value=/^#[0-9a-fA-F]{3,8}$/]',
  message: 'Colour literals belong to src/ui/theme.',
};

/** The language's own names, and three that are the same in both worlds. */
const builtinGlobals = {
  ...globals.builtin,
  ...{ WebAssembly: 'readonly', TextDecoder: 'readonly', TextEncoder: 'readonly' },
};

const config = [
  {
    ignores: [
      '.next/**',
      'node_modules/**',
      'next-env.d.ts',
      'bench/build/**',
      'src/core/heat/assembly/**',
      '.mutation/**',
      'test-results/**',
      'playwright-report/**',
    ],
  },
  // React's own rules run its compiler over every file they see: only those that draw are shown to them.
  ...nextVitals.map((config) =>
    config.rules ? { ...config, files: ['src/{app,features,ui,drawings}/**/*.{ts,tsx}'] } : config,
  ),
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', ignoreRestSiblings: true }],
      'no-restricted-syntax': ['error', noColourLiteral],
    },
  },
  {
    // With types: a promise that nobody waits for, and a switch over a union that forgets a member.
    files: ['src/**/*.{ts,tsx}', 'demo/**/*.ts', 'bench/**/*.ts', 'e2e/**/*.ts'],
    ignores: ['src/core/heat/assembly/**'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
    },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    // The core knows the language alone: a name of the browser's or of Node's, value or type, is undefined here.
    languageOptions: { globals: builtinGlobals, parserOptions: { lib: ['es2023'] } },
    rules: {
      'no-undef': 'error',
      'no-restricted-syntax': [
        'error',
        noColourLiteral,
        {
          selector: "MemberExpression[object.name='Math'][property.name='random']",
          message: 'Pass a seeded random in.',
        },
        { selector: "MemberExpression[object.name='Date'][property.name='now']", message: 'Pass the time in.' },
      ],
    },
  },
  {
    // What is longer than two screens is several things.
    files: ['src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}', '**/tests/**'],
    rules: { 'max-lines-per-function': ['error', { max: 120 }] },
  },
  {
    files: ['src/**/*.{ts,tsx}'],
    ignores: ['src/ui/parts/page-link.tsx'],
    rules: {
      'no-restricted-imports': ['error', { name: 'next/link', message: 'PageLink of @/ui fetches nothing ahead.' }],
    },
  },
  { files: ['src/ui/theme/**'], rules: { 'no-restricted-syntax': 'off' } },
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
];

export default config;
