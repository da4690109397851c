import type { Routes } from '@angular/router';

export const routes: Routes = [
  { path: '', title: 'Library · Brelvin', loadComponent: () => import('./library/library-page').then((each) => each.LibraryPage) },
  { path: 'bench/:id', title: 'Bench · Brelvin', loadComponent: () => import('./bench/bench-page').then((each) => each.BenchPage) },
  { path: 'jobs', title: 'Jobs · Brelvin', loadComponent: () => import('./jobs/jobs-page').then((each) => each.JobsPage) },
  { path: '**', redirectTo: '' },
];
