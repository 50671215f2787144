import type { Routes, UrlMatchResult, UrlSegment } from '@angular/router';

/**
 * One route for the Bench with and without a kept phrase: keeping a new one changes the address, and must not build the
 * place anew, with its sheet shut and its sound stopped.
 */
function bench(segments: readonly UrlSegment[]): UrlMatchResult | null {
  const [place, phrase] = segments;
  if (place?.path !== 'bench' || segments.length > 2) return null;
  return { consumed: [...segments], posParams: phrase ? { phrase } : {} };
}

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'shelf' },
  {
    path: 'shelf',
    title: 'Shelf · Loop Shelf',
    loadComponent: () => import('../shelf/shelf.component').then((m) => m.ShelfComponent),
  },
  {
    matcher: bench,
    title: 'Bench · Loop Shelf',
    loadComponent: () => import('../bench/bench.component').then((m) => m.BenchComponent),
  },
  {
    path: 'drill',
    title: 'Drill · Loop Shelf',
    loadComponent: () => import('../drill/drill.component').then((m) => m.DrillComponent),
  },
  {
    path: 'drill/:phrase',
    title: 'Drill · Loop Shelf',
    loadComponent: () => import('../drill/drill.component').then((m) => m.DrillComponent),
  },
  {
    path: 'log',
    title: 'Log · Loop Shelf',
    loadComponent: () => import('../log/log.component').then((m) => m.LogComponent),
  },
  {
    path: 'kit',
    title: 'Kit · Loop Shelf',
    loadComponent: () => import('../kit/kit.component').then((m) => m.KitComponent),
  },
  { path: '**', redirectTo: 'shelf' },
];
