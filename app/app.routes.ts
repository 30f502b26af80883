import { inject } from '@angular/core';
import { Router, type CanActivateFn, type Routes } from '@angular/router';
import { MusterStore } from './data/musterStore';

/** Where there is no muster yet, one is begun. */
const withMuster: CanActivateFn = async () => {
  const store = inject(MusterStore);
  const router = inject(Router);
  await store.ready();
  return store.muster() !== null || router.parseUrl('/begin');
};

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'plan' },
  {
    path: 'begin',
    title: 'Begin · Patient Muster',
    loadComponent: () => import('./begin/begin.view').then((m) => m.BeginView),
  },
  {
    path: 'musters',
    title: 'All musters · Patient Muster',
    loadComponent: () => import('./musters/musters.view').then((m) => m.MustersView),
  },
  {
    path: 'help',
    title: 'Help · Patient Muster',
    loadComponent: () => import('./help/help.view').then((m) => m.HelpView),
  },
  {
    path: 'findings',
    title: 'What to look at · Patient Muster',
    canActivate: [withMuster],
    loadComponent: () => import('./findings/findings.view').then((m) => m.FindingsView),
  },
  {
    path: 'muster',
    title: 'Muster · Patient Muster',
    canActivate: [withMuster],
    loadComponent: () => import('./muster/muster.view').then((m) => m.MusterView),
  },
  {
    path: 'recipes',
    title: 'Recipes · Patient Muster',
    canActivate: [withMuster],
    loadComponent: () => import('./recipes/recipes.view').then((m) => m.RecipesView),
  },
  {
    path: 'recipes/:recipe/sheet',
    title: 'Recipe sheet · Patient Muster',
    canActivate: [withMuster],
    loadComponent: () => import('./recipes/recipeSheet.view').then((m) => m.RecipeSheetView),
  },
  {
    path: 'recipes/:recipe',
    title: 'Recipes · Patient Muster',
    canActivate: [withMuster],
    loadComponent: () => import('./recipes/recipes.view').then((m) => m.RecipesView),
  },
  {
    path: 'bench',
    title: 'Bench · Patient Muster',
    canActivate: [withMuster],
    loadComponent: () => import('./bench/bench.view').then((m) => m.BenchView),
  },
  {
    path: 'stores',
    title: 'Stores · Patient Muster',
    canActivate: [withMuster],
    loadComponent: () => import('./stores/stores.view').then((m) => m.StoresView),
  },
  {
    path: 'tonight',
    title: 'Tonight · Patient Muster',
    canActivate: [withMuster],
    loadComponent: () => import('./tonight/tonight.view').then((m) => m.TonightView),
  },
  {
    path: 'practice',
    title: 'Practise your eye · Patient Muster',
    canActivate: [withMuster],
    loadComponent: () => import('./practice/practice.view').then((m) => m.PracticeView),
  },
  {
    path: 'log',
    title: 'Log · Patient Muster',
    canActivate: [withMuster],
    loadComponent: () => import('./log/log.view').then((m) => m.LogView),
  },
  {
    path: 'wave',
    title: 'Wave · Patient Muster',
    canActivate: [withMuster],
    loadComponent: () => import('./wave/wave.view').then((m) => m.WaveView),
  },
  {
    path: 'unit',
    title: 'Unit · Patient Muster',
    canActivate: [withMuster],
    loadComponent: () => import('./unit/unit.view').then((m) => m.UnitView),
  },
  {
    path: 'unit/:unit',
    title: 'Unit · Patient Muster',
    canActivate: [withMuster],
    loadComponent: () => import('./unit/unit.view').then((m) => m.UnitView),
  },
  {
    path: 'plan',
    title: 'Plan · Patient Muster',
    canActivate: [withMuster],
    loadComponent: () => import('./plan/plan.view').then((m) => m.PlanView),
  },
  {
    path: 'sheet',
    title: 'Run sheet · Patient Muster',
    canActivate: [withMuster],
    loadComponent: () => import('./sheet/sheet.view').then((m) => m.SheetView),
  },
  {
    path: 'sheet/:session',
    title: 'Run sheet · Patient Muster',
    canActivate: [withMuster],
    loadComponent: () => import('./sheet/sheet.view').then((m) => m.SheetView),
  },
  { path: '**', redirectTo: 'plan' },
];
