import type { Routes } from '@angular/router';

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'shelf' },
  { path: 'shelf', title: 'Shelf · Loop Shelf', loadComponent: () => import('../shelf/shelf.component').then((m) => m.ShelfComponent) },
  { path: 'bench', title: 'Bench · Loop Shelf', loadComponent: () => import('../bench/bench.component').then((m) => m.BenchComponent) },
  {
    path: 'bench/:phrase',
    title: 'Bench · Loop Shelf',
    loadComponent: () => import('../bench/bench.component').then((m) => m.BenchComponent),
  },
  { path: 'drill', title: 'Drill · Loop Shelf', loadComponent: () => import('../drill/drill.component').then((m) => m.DrillComponent) },
  {
    path: 'drill/:phrase',
    title: 'Drill · Loop Shelf',
    loadComponent: () => import('../drill/drill.component').then((m) => m.DrillComponent),
  },
  { path: 'log', title: 'Log · Loop Shelf', loadComponent: () => import('../log/log.component').then((m) => m.LogComponent) },
  { path: 'kit', title: 'Kit · Loop Shelf', loadComponent: () => import('../kit/kit.component').then((m) => m.KitComponent) },
  { path: '**', redirectTo: 'shelf' },
];
