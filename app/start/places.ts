import type { Type } from '@angular/core';

/** A place of the rail. Each keeps its digit for good; places that are not built yet have none here. */
export interface Place {
  readonly digit: number;
  readonly path: string;
  readonly name: string;
  /** Whether its address may name a phrase. */
  readonly ofPhrase: boolean;
  readonly load: () => Promise<Type<unknown>>;
}

/** The one table of places: the rail, the digits that lead there and the addresses derive from it. */
export const PLACES: readonly Place[] = [
  {
    digit: 1,
    path: 'today',
    name: 'Today',
    ofPhrase: false,
    load: () => import('../places/today/today.component').then((m) => m.TodayComponent),
  },
  {
    digit: 2,
    path: 'listen',
    name: 'Listen',
    ofPhrase: false,
    load: () => import('../places/listen/listen.component').then((m) => m.ListenComponent),
  },
  {
    digit: 3,
    path: 'bench',
    name: 'Bench',
    ofPhrase: true,
    load: () => import('../places/bench/bench.component').then((m) => m.BenchComponent),
  },
  {
    digit: 4,
    path: 'shelf',
    name: 'Shelf',
    ofPhrase: false,
    load: () => import('../places/shelf/shelf.component').then((m) => m.ShelfComponent),
  },
  {
    digit: 5,
    path: 'drill',
    name: 'Drill',
    ofPhrase: true,
    load: () => import('../places/drill/drill.component').then((m) => m.DrillComponent),
  },
  {
    digit: 6,
    path: 'log',
    name: 'Log',
    ofPhrase: false,
    load: () => import('../places/log/log.component').then((m) => m.LogComponent),
  },
  {
    digit: 7,
    path: 'kit',
    name: 'Kit',
    ofPhrase: false,
    load: () => import('../places/kit/kit.component').then((m) => m.KitComponent),
  },
  {
    digit: 8,
    path: 'shows',
    name: 'Shows',
    ofPhrase: false,
    load: () => import('../places/shows/shows.component').then((m) => m.ShowsComponent),
  },
  {
    digit: 9,
    path: 'play',
    name: 'Play',
    ofPhrase: false,
    load: () => import('../places/play/play.component').then((m) => m.PlayComponent),
  },
  {
    digit: 0,
    path: 'lessons',
    name: 'Lessons',
    ofPhrase: false,
    load: () => import('../places/lessons/lessons.component').then((m) => m.LessonsComponent),
  },
];

/** Where a page begins that names no place. */
export const FIRST_PLACE = 'shelf';
