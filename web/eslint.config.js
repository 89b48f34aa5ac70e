import boundaries from 'eslint-plugin-boundaries'
import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import { defineConfigWithVueTs, vueTsConfigs } from '@vue/eslint-config-typescript'

/** The parts of the page from the bottom up: each may use those before it, and itself. */
const parts = ['api', 'controls', 'document', 'address', 'sound', 'neck', 'staff', 'tab']

export default defineConfigWithVueTs(
  { ignores: ['dist', 'node_modules', 'src/api/schema.ts'] },
  vue.configs['flat/recommended'],
  vueTsConfigs.recommended,
  {
    files: ['src/**/*.{ts,vue}'],
    plugins: { boundaries },
    settings: {
      'import/resolver': { typescript: { project: './tsconfig.json' } },
      'boundaries/elements': [
        ...parts.map((part) => ({ type: part, pattern: `src/${part}` })),
        { type: 'step', pattern: 'src/steps/*', capture: ['name'] },
        { type: 'app', pattern: 'src/app' },
      ],
    },
    rules: {
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          message: 'a file of {{ from.element.type }} may not use {{ to.element.type }}: arrows point down',
          policies: [
            // What comes from outside the page is another matter.
            { allow: { to: { origin: ['external', 'core'] } } },
            ...parts.map((part, n) => ({
              from: { element: { type: part } },
              allow: { to: { element: { type: parts.slice(0, n + 1) } } },
            })),
            // Steps never use steps.
            {
              from: { element: { type: 'step' } },
              allow: [
                { to: { element: { type: parts } } },
                { to: { element: { type: 'step', captured: { name: '{{ from.element.captured.name }}' } } } },
              ],
            },
            {
              from: { element: { type: 'app' } },
              allow: { to: { element: { type: [...parts, 'step', 'app'] } } },
            },
          ],
        },
      ],
    },
  },
  {
    files: ['src/**/*.test.ts'],
    ignores: ['src/**/*.mocked.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'MemberExpression[object.name="vi"][property.name=/^(mock|doMock|resetModules)$/]',
          message: 'this file shares its modules with others: call it *.mocked.test.ts',
        },
      ],
    },
  },
  prettier,
)
