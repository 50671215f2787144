import type { Route, Routes, UrlMatchResult, UrlSegment } from '@angular/router';
import type { Type } from '@angular/core';
import { nextTask } from '../common/idle';
import { NotFetchedComponent } from './not-fetched.component';
import { FIRST_PLACE, PLACES, type Place } from './places';

/** How often code that could not be fetched is asked for again, and after how long, in milliseconds. */
const AGAIN = [400, 1500];

/** The code of a place. One that cannot be fetched says so in its stead. */
async function fetched(load: Place['load']): Promise<Type<unknown>> {
  for (const wait of [...AGAIN, null]) {
    try {
      const place = await load();
      // Its code was run just now; it is made in a task of its own.
      await nextTask();
      return place;
    } catch {
      if (wait !== null) await new Promise((r) => setTimeout(r, wait));
    }
  }
  return NotFetchedComponent;
}

/**
 * One route for a place with and without a phrase: keeping a new one changes the address, and must not build the place
 * anew, with its sheet shut and its sound stopped.
 */
function addressOf({ path, ofPhrase }: Place): (segments: readonly UrlSegment[]) => UrlMatchResult | null {
  return (segments) => {
    const [place, phrase] = segments;
    if (place?.path !== path || segments.length > (ofPhrase ? 2 : 1)) return null;
    const posParams: Record<string, UrlSegment> = phrase ? { phrase } : {};
    return { consumed: [...segments], posParams };
  };
}

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: FIRST_PLACE },
  ...PLACES.map((place): Route => ({
    matcher: addressOf(place),
    title: `${place.name} · Loop Shelf`,
    loadComponent: () => fetched(place.load),
  })),
  {
    path: 'visit',
    title: 'A phrase · Loop Shelf',
    loadComponent: () => fetched(() => import('../places/visit/visit.component').then((m) => m.VisitComponent)),
  },
  { path: '**', redirectTo: FIRST_PLACE },
];
