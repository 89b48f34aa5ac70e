import vue from '@vitejs/plugin-vue'
import { defineConfig, type Plugin } from 'vite'

/** The fonts that every view begins with: they are asked for along with the script, not after it. */
const firstFonts = [/atkinson-hyperlegible-next-latin-wght-normal[^/]*\.woff2$/, /\/signs-[^/]*\.woff2$/]

/** Says in the page which fonts to load at once. */
function preloadFonts(): Plugin {
  return {
    name: 'preload-fonts',
    transformIndexHtml: {
      order: 'post',
      handler: (_, { bundle }) =>
        Object.keys(bundle ?? {})
          .filter((file) => firstFonts.some((font) => font.test(`/${file}`)) && !file.includes('signs-bold'))
          .map((file) => ({
            tag: 'link',
            attrs: { rel: 'preload', href: `/${file}`, as: 'font', type: 'font/woff2', crossorigin: '' },
            injectTo: 'head-prepend' as const,
          })),
    },
  }
}

// The Go server of `undaris demo` answers the API while the page is developed.
export default defineConfig({
  plugins: [vue(), preloadFonts()],
  build: { target: 'es2022', sourcemap: false, assetsInlineLimit: 0, chunkSizeWarningLimit: 700 },
  server: { proxy: { '/api': 'http://127.0.0.1:8380' } },
})
