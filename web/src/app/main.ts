import '@fontsource-variable/atkinson-hyperlegible-next'
import './theme/signs.css'
import './theme/page.css'

import { createPinia } from 'pinia'
import PrimeVue from 'primevue/config'
import { createApp } from 'vue'
import { Problem } from '../api/client'
import { reportFault } from '../api/fault'
import App from './App.vue'
import { vRoving } from '../controls/roving'
import { loadMissingSteps } from './missing'
import { router } from './router'
import { preset } from './theme/preset'

const app = createApp(App)
// What no one has caught is said on the page all the same.
app.config.errorHandler = (error) => {
  console.error(error)
  reportFault(new Problem(500, `Something went wrong on this page: ${String(error)}`))
}
window.addEventListener('unhandledrejection', ({ reason }) => {
  if (reason instanceof DOMException && reason.name === 'AbortError') return
  reportFault(reason instanceof Problem ? reason : new Problem(500, String(reason)))
})
loadMissingSteps(router)
app
  .use(createPinia())
  .use(router)
  .directive('roving', vRoving)
  .use(PrimeVue, { theme: { preset, options: { darkModeSelector: '.night' } } })
  .mount('#app')
