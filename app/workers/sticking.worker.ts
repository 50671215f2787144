import { expose } from 'comlink';
import type { Pattern } from '@core/pattern';
import { stickings, type StickingWish } from '@core/sticking';
import { lightened, type LightStickings } from './light-stickings';

/** Finds stickings, telling how far it is. Stopping it means ending the worker. */
function find(pattern: Pattern, wish: StickingWish, tell: (share: number) => void): LightStickings {
  let told = 0;
  return lightened(
    stickings(pattern, wish, undefined, (share) => {
      if (share - told < 0.02) return;
      told = share;
      tell(share);
    }),
  );
}

expose({ find });
