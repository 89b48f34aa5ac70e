import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import { defineConfigWithVueTs, vueTsConfigs } from '@vue/eslint-config-typescript'

export default defineConfigWithVueTs(
  { ignores: ['dist', 'node_modules', 'src/api/schema.ts'] },
  vue.configs['flat/recommended'],
  vueTsConfigs.recommended,
  prettier,
)
