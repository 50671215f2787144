import type { Route, Routes, UrlMatchResult, UrlSegment } from '@angular/router';
import { FIRST_PLACE, PLACES, type Place } from './places';

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
    loadComponent: place.load,
  })),
  { path: '**', redirectTo: FIRST_PLACE },
];
