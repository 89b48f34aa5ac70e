import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

// The page's own logic, without a server and without a browser.
export default defineConfig({
  plugins: [vue() as never],
  test: { environment: 'happy-dom', include: ['src/**/*.test.ts'], restoreMocks: true },
})
