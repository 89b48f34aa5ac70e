import '@fontsource-variable/atkinson-hyperlegible-next'
import 'primeicons/primeicons.css'
import './theme/signs.css'
import './theme/page.css'

import { createPinia } from 'pinia'
import PrimeVue from 'primevue/config'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import { preset } from './theme/preset'

createApp(App)
  .use(createPinia())
  .use(router)
  .use(PrimeVue, { theme: { preset, options: { darkModeSelector: '.night' } } })
  .mount('#app')
