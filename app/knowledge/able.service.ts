import { computed, effect, inject, Injectable, signal } from '@angular/core';
import { stableJson } from '@core/base';
import { effectiveProfile, ceilingOn, lessonFor, topOf, type Lesson, type Top } from '@core/reach';
import type { Pattern } from '@core/pattern';
import { KitsRepo } from '../storage/kits.repo';
import { ProfileRepo } from '../storage/profile.repo';
import { ShelfIndex } from './shelf-index.service';

/** What the player can do: their tests, and what clean tries showed beyond them. */
@Injectable({ providedIn: 'root' })
export class AbleService {
  private readonly profile = inject(ProfileRepo);
  private readonly kits = inject(KitsRepo);
  private readonly index = inject(ShelfIndex);
  private readonly lessons = signal<readonly Lesson[]>([], { equal: (a, b) => stableJson(a) === stableJson(b) });

  readonly now = computed(() => effectiveProfile(this.profile.now(), this.lessons()));

  constructor() {
    effect(() => {
      this.index.changed();
      // An index that cannot be asked teaches nothing.
      this.index.lessons().then(
        (lessons) => this.lessons.set(lessons),
        () => undefined,
      );
    });
  }

  /** The highest tempo of a pattern on the current kit, with what it rests on, the tries of the phrase itself too. */
  top(pattern: Pattern, shown: Parameters<typeof topOf>[2]): Top {
    const [kit, profile, lessons] = [this.kits.current(), this.profile.now(), this.lessons()];
    const before = ceilingOn(pattern, kit, profile);
    const bpm = lessons.length > 0 ? ceilingOn(pattern, kit, this.now()).bpm : null;
    const lesson = lessonFor(before, lessons);
    const taught = bpm !== null && lesson ? { bpm, name: lesson.name, at: lesson.at } : null;
    return topOf(before, profile.measured, shown, taught);
  }
}
