import nextVitals from 'eslint-config-next/core-web-vitals';
import tseslint from 'typescript-eslint';

// Colours live in the theme; a literal elsewhere breaks the dim theme.
const noColourLiteral = {
  selector: 'Literal[value=/^#[0-9a-fA-F]{3,8}$/]',
  message: 'Colour literals belong to src/ui/theme.',
};

const config = [
  {
    ignores: [
      '.next/**',
      'node_modules/**',
      'next-env.d.ts',
      'bench/build/**',
      'src/core/heat/assembly/**',
      'test-results/**',
      'playwright-report/**',
    ],
  },
  ...nextVitals,
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      'no-restricted-syntax': ['error', noColourLiteral],
    },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
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
  { files: ['src/ui/theme/**'], rules: { 'no-restricted-syntax': 'off' } },
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
];

export default config;
