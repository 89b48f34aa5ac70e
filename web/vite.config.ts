import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'

// The Go server of `undaris demo` answers the API while the page is developed.
export default defineConfig({
  plugins: [vue()],
  build: { target: 'es2022', sourcemap: false, assetsInlineLimit: 0, chunkSizeWarningLimit: 700 },
  server: { proxy: { '/api': 'http://127.0.0.1:8380' } },
})
