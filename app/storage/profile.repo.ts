import { inject, Injectable } from '@angular/core';
import { USUAL_PROFILE, type Profile } from '@core/reach';
import { Database } from './database';
import { KeptValue } from './kept-value';

/** How fast the user's limbs are. */
@Injectable({ providedIn: 'root' })
export class ProfileRepo {
  private readonly value = new KeptValue<Profile>(inject(Database), 'profile', USUAL_PROFILE);
  readonly now = this.value.now;

  keep(profile: Profile): Promise<boolean> {
    return this.value.keep(profile);
  }
}
