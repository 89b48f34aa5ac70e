import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

// The page's own logic, without a server and without a browser. Files share their modules, since loading
// them for each takes ten times as long as the tests do; those that put other modules in the place of
// real ones are called *.mocked.test.ts, and npm run unit gives each of them modules of its own.
export default defineConfig({
  plugins: [vue() as never],
  test: {
    environment: 'happy-dom',
    include: ['src/**/*.test.ts'],
    restoreMocks: true,
    pool: 'threads',
    isolate: false,
  },
})
