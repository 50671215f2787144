import { expose } from 'comlink';
import { GRID, meter, USUAL_SCHOOLS } from '@core/time';
import { parseStrokeText } from '@core/stroke';
import { patternOfText, type Pattern } from '@core/pattern';
import { USUAL_KIT } from '@core/kit';
import { USUAL_PROFILE } from '@core/reach';
import { stickings, type StickingWish } from '@core/sticking';
import { lightened, type LightStickings } from './light-stickings';

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

/** A search nobody asked for: the browser makes a program fast only once it has run, and the first search is the one that is waited for. */
function rehearse(): void {
  const text = parseStrokeText('( R! l R L r L! )x8');
  if (asked || !text.ok) return;
  const wish = { bpm: 110, kit: USUAL_KIT, profile: USUAL_PROFILE, pins: new Map(), schools: USUAL_SCHOOLS, many: 20, apart: 1 };
  stickings(patternOfText(text.value, meter(4, 4), GRID.sixteenths), wish);
}

expose({ find });
setTimeout(rehearse);
