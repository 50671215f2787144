import { expose } from 'comlink';
import { GRID, meter, USUAL_SCHOOLS } from '@core/time';
import { parseStrokeText } from '@core/stroke';
import { patternOfText, type Pattern } from '@core/pattern';
import { USUAL_KIT } from '@core/kit';
import { USUAL_PROFILE } from '@core/reach';
import { stickings, type StickingWish } from '@core/sticking';
import { lightened, type LightStickings } from './light-stickings';

/** So often the search has to run before the browser has made it fast. */
const REHEARSALS = 3;

/** How long a worker that was just started waits for a search before it rehearses, in milliseconds. */
const PEACE = 250;

let asked = false;

/** Finds stickings, telling how far it is. Stopping it means ending the worker. */
function find(pattern: Pattern, wish: StickingWish, tell: (share: number) => void): LightStickings {
  asked = true;
  let told = 0;
  return lightened(
    stickings(pattern, wish, undefined, (share) => {
      if (share - told < 0.02) return;
      told = share;
      tell(share);
    }),
  );
}

/**
 * A search nobody asked for: the browser makes a program fast only once it has run, and the first search is the one
 * that is waited for. One that is asked meanwhile comes first.
 */
function rehearse(left = REHEARSALS): void {
  const text = parseStrokeText('( R! l R L r L! )x16');
  if (asked || left === 0 || !text.ok) return;
  const wish = {
    bpm: 110,
    kit: USUAL_KIT,
    profile: USUAL_PROFILE,
    pins: new Map(),
    schools: USUAL_SCHOOLS,
    many: 20,
    apart: 1,
  };
  stickings(patternOfText(text.value, meter(4, 4), GRID.sixteenths), wish);
  setTimeout(() => rehearse(left - 1));
}

expose({ find });
setTimeout(rehearse, PEACE);
