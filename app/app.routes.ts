import type { Routes } from '@angular/router';

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'plan' },
  {
    path: 'musters',
    title: 'All musters · Patient Muster',
    loadComponent: () => import('./musters/musters.view').then((m) => m.MustersView),
  },
  {
    path: 'muster',
    title: 'Muster · Patient Muster',
    loadComponent: () => import('./muster/muster.view').then((m) => m.MusterView),
  },
  {
    path: 'recipes',
    title: 'Recipes · Patient Muster',
    loadComponent: () => import('./recipes/recipes.view').then((m) => m.RecipesView),
  },
  {
    path: 'recipes/:recipe',
    title: 'Recipes · Patient Muster',
    loadComponent: () => import('./recipes/recipes.view').then((m) => m.RecipesView),
  },
  {
    path: 'bench',
    title: 'Bench · Patient Muster',
    loadComponent: () => import('./bench/bench.view').then((m) => m.BenchView),
  },
  {
    path: 'stores',
    title: 'Stores · Patient Muster',
    loadComponent: () => import('./stores/stores.view').then((m) => m.StoresView),
  },
  {
    path: 'tonight',
    title: 'Tonight · Patient Muster',
    loadComponent: () => import('./tonight/tonight.view').then((m) => m.TonightView),
  },
  {
    path: 'log',
    title: 'Log · Patient Muster',
    loadComponent: () => import('./log/log.view').then((m) => m.LogView),
  },
  {
    path: 'wave',
    title: 'Wave · Patient Muster',
    loadComponent: () => import('./wave/wave.view').then((m) => m.WaveView),
  },
  {
    path: 'plan',
    title: 'Plan · Patient Muster',
    loadComponent: () => import('./plan/plan.view').then((m) => m.PlanView),
  },
  {
    path: 'sheet',
    title: 'Run sheet · Patient Muster',
    loadComponent: () => import('./sheet/sheet.view').then((m) => m.SheetView),
  },
  {
    path: 'sheet/:session',
    title: 'Run sheet · Patient Muster',
    loadComponent: () => import('./sheet/sheet.view').then((m) => m.SheetView),
  },
  { path: '**', redirectTo: 'plan' },
];
