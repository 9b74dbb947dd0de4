import reactHooks from 'eslint-plugin-react-hooks'
import { defineConfig, globalIgnores } from 'eslint/config'
import tseslint from 'typescript-eslint'

export default defineConfig([
  globalIgnores(['**/dist/', '**/build/', '**/node_modules/', '**/*.{js,mjs,cjs}']),
  // Types and what is wrong in general is for oxlint; here are rules of our own, and those of React's hooks.
  { files: ['app/**/*.{ts,tsx}', 'core/src/**/*.ts'], languageOptions: { parser: tseslint.parser } },
  {
    // Engines differ in the last digits of these: on the way to a pixel they are taken by the kernels, or rounded (`steady`).
    files: ['core/src/{operations,effects,masks,weather,optics,astronomy}/**/*.ts'],
    ignores: [
      '**/*.test.ts',
      // Whole numbers come of them: of passes, of a reduction, of where something is looked for.
      'core/src/operations/blurs/radialBlur/radialBlur.ts',
      'core/src/operations/geometry/polarWrap/polarWrap.ts',
      'core/src/operations/sources/{laidPicture,photo}/*.ts',
      'core/src/operations/costs.ts',
      'core/src/effects/fallLoop.ts',
      // What comes of them is rounded where it becomes a parameter.
      'core/src/operations/distance/nearTo/nearTo.ts',
      'core/src/effects/{gainOfLight,camera}.ts',
      'core/src/effects/{adjust/whiteBalance,customField/definition,customField/operations/fades,rain/cameraDrops}.ts',
      'core/src/effects/{customField/fieldBox,lightBloom/definition,lamp/definition,overlay/definition,splashes/definition}.ts',
      'core/src/masks/{brush/guides,line/definition}.ts',
      'core/src/astronomy/stars.ts',
      'core/src/{weather,optics}/**',
    ],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector:
            'CallExpression[callee.object.name="Math"][callee.property.name=/^(sin|cos|tan|asin|acos|atan|atan2|exp|log|log2|log10|pow|cbrt|hypot|sinh|cosh|tanh)$/]:not(CallExpression[callee.name="steady"] CallExpression)',
          message: 'Take it from the kernels, or round it with steady(): engines differ in its last digits.',
        },
      ],
    },
  },
  {
    // Colours and weights are those of the theme.
    files: ['app/src/**/*.{ts,tsx}'],
    ignores: ['app/src/theme.ts', 'app/src/common/surround.ts', '**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: 'Literal[value=/^#([0-9a-f]{3}|[0-9a-f]{6})$/i]', message: 'Take the colour from the theme.' },
        { selector: 'Property[key.name="fontWeight"] > Literal', message: 'Take the weight from the theme.' },
      ],
    },
  },
  {
    files: ['app/**/*.{ts,tsx}'],
    ignores: ['**/*.test.ts'],
    plugins: { 'react-hooks': reactHooks },
    rules: reactHooks.configs.recommended.rules,
  },
])
