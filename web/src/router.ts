import { createRouter, createWebHistory } from 'vue-router'
import ChangeStep from './change/ChangeStep.vue'
import LicksStep from './licks/LicksStep.vue'
import MapStep from './map/MapStep.vue'
import NoTune from './shell/NoTune.vue'
import TunePage from './shell/TunePage.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'start', component: NoTune },
    {
      path: '/tunes/:id(\\d+)',
      component: TunePage,
      children: [
        { path: '', redirect: (to) => ({ name: 'map', params: to.params }) },
        { path: 'map', name: 'map', component: MapStep },
        { path: 'change', name: 'change', component: ChangeStep },
        { path: 'licks', name: 'licks', component: LicksStep },
      ],
    },
    { path: '/:rest(.*)', redirect: { name: 'start' } },
  ],
})
