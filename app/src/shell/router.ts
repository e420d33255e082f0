import { fileFormat } from '../store/fileFormat';
import { createRouter, createWebHistory, type RouteRecordRaw } from 'vue-router';

/** The phases a system goes through, in order; the number is also their key. */
export const PHASES = [
  { key: 'water', label: 'Water' },
  { key: 'goal', label: 'Goal' },
  { key: 'train', label: 'Train' },
  { key: 'build', label: 'Build' },
  { key: 'log', label: 'Log' },
  { key: 'faults', label: 'Faults' },
] as const;
export type PhaseKey = (typeof PHASES)[number]['key'];

const PAGES: Record<PhaseKey, () => Promise<unknown>> = {
  water: () => import('../water/WaterPage.vue'),
  goal: () => import('../goal/GoalPage.vue'),
  train: () => import('../train/TrainPage.vue'),
  build: () => import('../commission/CommissionPage.vue'),
  log: () => {
    // Its charts come beside the page, not after it.
    import('../kit/chart/LineChart.vue').catch(() => undefined);
    return import('../log/LogPage.vue');
  },
  faults: () => import('../faults/FaultsPage.vue'),
};

const routes: RouteRecordRaw[] = [
  { path: '/', name: 'rounds', component: () => import('../rounds/RoundsPage.vue') },
  {
    path: '/system/:id',
    component: () => import('./SystemLayout.vue'),
    props: true,
    children: [
      { path: '', redirect: { name: 'water' } },
      { path: 'log/year', name: 'year', component: () => import('../year/YearPage.vue') },
      { path: 'train/options', name: 'options', component: () => import('../choice/OptionsPage.vue') },
      ...PHASES.map((phase) => ({ path: phase.key, name: phase.key, component: PAGES[phase.key] as () => Promise<never> })),
    ],
  },
  { path: '/practice', name: 'practice', component: () => import('../practice/PracticeList.vue') },
  // Another exercise or another rig is a page of its own.
  {
    path: '/practice/:exercise/:seed(\\d{1,9})',
    name: 'bench',
    component: () => import('../practice/PracticeBench.vue'),
    props: true,
  },
  { path: '/van-year', name: 'van-year', component: () => import('../rounds/VanYear.vue') },
  { path: '/visit', name: 'visit', component: () => import('../rounds/VisitPage.vue') },
  // What it carries stands behind the # and never leaves the browser.
  { path: '/open', name: 'open', component: () => import('../rounds/OpenLink.vue') },
  { path: '/:rest(.*)', redirect: '/' },
];

/** Loads every page while the browser has nothing else to do: a signal lost later, or a server built anew, takes none away. */
export function loadPagesAhead(): void {
  const idle = window.requestIdleCallback ?? ((act: () => void) => setTimeout(act, 800));
  setTimeout(() => idle(loadNow), AHEAD_AFTER_MS);
  function loadNow(): void {
    for (const page of [
      ...Object.values(PAGES),
      () => import('./SystemLayout.vue'),
      () => import('../rounds/OpenLink.vue'),
      () => import('../rounds/VisitPage.vue'),
      () => import('../practice/PracticeList.vue'),
      () => import('../practice/PracticeBench.vue'),
      () => import('../choice/OptionsPage.vue'),
      () => import('../year/YearPage.vue'),
      () => import('../rounds/VanYear.vue'),
      fileFormat,
    ])
      page().catch(() => undefined);
  }
}
/** The first page has what it shows by then, ms. */
const AHEAD_AFTER_MS = 700;

export const router = createRouter({
  history: createWebHistory(),
  routes, // Another lens or stage is the same page: it stays where it is.
  scrollBehavior: (to, from) => (to.path === from.path ? false : { top: 0 }),
});
