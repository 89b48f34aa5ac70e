import { createRouter, createWebHistory } from 'vue-router'
import ChartStep from './chart/ChartStep.vue'
import ChangeStep from './change/ChangeStep.vue'
import LicksStep from './licks/LicksStep.vue'
import LibraryPage from './library/LibraryPage.vue'
import MapStep from './map/MapStep.vue'
import TunePage from './shell/TunePage.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'start', component: LibraryPage },
    {
      path: '/tunes/:id(\\d+)',
      component: TunePage,
      children: [
        { path: '', redirect: (to) => ({ name: 'chart', params: to.params }) },
        { path: 'chart', name: 'chart', component: ChartStep },
        { path: 'map', name: 'map', component: MapStep },
        { path: 'change', name: 'change', component: ChangeStep },
        { path: 'licks', name: 'licks', component: LicksStep },
        { path: 'solo', name: 'solo', component: () => import('./solo/SoloStep.vue') },
      ],
    },
    { path: '/:rest(.*)', redirect: { name: 'start' } },
  ],
})
