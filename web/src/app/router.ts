import { createRouter, createWebHistory } from 'vue-router'
import { followNavigation } from '../address/useQuery'

/** Every step is a chunk of its own, loaded when it is first gone to. */
export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'start', component: () => import('../steps/library/LibraryPage.vue') },
    { path: '/data', name: 'data', component: () => import('../steps/data/DataPage.vue') },
    {
      path: '/tunes/:id(\\d+)/practice',
      name: 'practice',
      component: () => import('../steps/practice/PracticePage.vue'),
    },
    {
      path: '/tunes/:id(\\d+)',
      component: () => import('./TunePage.vue'),
      children: [
        { path: '', redirect: (to) => ({ name: 'chart', params: to.params }) },
        { path: 'chart', name: 'chart', component: () => import('../steps/chart/ChartStep.vue') },
        { path: 'map', name: 'map', component: () => import('../steps/map/MapStep.vue') },
        { path: 'change', name: 'change', component: () => import('../steps/change/ChangeStep.vue') },
        { path: 'licks', name: 'licks', component: () => import('../steps/licks/LicksStep.vue') },
        { path: 'solo', name: 'solo', component: () => import('../steps/solo/SoloStep.vue') },
        { path: 'play', name: 'play', component: () => import('../steps/play/PlayStep.vue') },
        {
          path: 'exercise',
          name: 'exercise',
          component: () => import('../steps/exercise/ExerciseStep.vue'),
        },
        { path: 'takes', name: 'takes', component: () => import('../steps/takes/TakesStep.vue') },
      ],
    },
    { path: '/:rest(.*)', redirect: { name: 'start' } },
  ],
})
followNavigation(router)
