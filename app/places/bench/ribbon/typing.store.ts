import { inject, Injectable } from '@angular/core';
import { ticks } from '@core/time';
import { isHand, type Level, type Limb, type Ornament, type TypedStroke } from '@core/stroke';
import { inRange, levelEdits, restEdits, withTyped, writeEdits } from '@core/recipe';
import { BenchStore } from '../document/bench.store';
import { RepeatsStore } from '../document/repeats.store';
import { CursorStore } from './cursor.store';

const ORNAMENT_OF: Readonly<Record<string, Ornament>> = { f: 'flam', d: 'drag', t: 'ruff', z: 'buzz' };
const LETTER_OF: Readonly<Record<Ornament, string>> = { flam: 'f', drag: 'd', ruff: 't', buzz: 'z' };

/**
 * What was typed so far at one place: the slot written last, an ornament that waits for its hand, and whether the next
 * stroke joins the last.
 */
interface Begun {
  readonly visit: number;
  readonly last: number | null;
  readonly ornament: Ornament | null;
  readonly joins: boolean;
}

/**
 * Strokes written at the cursor, letter by letter as in stroke text. What was begun is forgotten when the cursor is put
 * elsewhere.
 */
@Injectable({ providedIn: 'root' })
export class TypingStore {
  private readonly bench = inject(BenchStore);
  private readonly repeats = inject(RepeatsStore);
  private readonly cursor = inject(CursorStore);
  private kept: Begun = { visit: -1, last: null, ornament: null, joins: false };

  private get begun(): Begun {
    const visit = this.cursor.visit();
    return this.kept.visit === visit ? this.kept : { visit, last: null, ornament: null, joins: false };
  }

  private begin(part: Partial<Begun>): void {
    this.kept = { ...this.begun, ...part };
  }

  /** One character of stroke text. False when it is none, so that the key can mean something else. */
  type(char: string): boolean {
    const limb = 'RLKJH'.includes(char.toUpperCase()) ? (char.toUpperCase() as Limb) : null;
    const ornament = ORNAMENT_OF[char];
    if (limb) this.write(limb, char === char.toUpperCase() ? 'tap' : 'ghost');
    else if (char === '-' || char === '_') this.rest();
    else if (char === '!') this.accentLast();
    else if (char === '+') this.begin({ joins: this.begun.last !== null });
    else if (ornament) this.begin({ ornament });
    else return false;
    return true;
  }

  /**
   * Switches a limb at the chosen places, one slot or many: where it does not play it joins what is there; playing in
   * all of them already, it rests.
   */
  limb(limb: Limb): void {
    const pattern = this.cursor.pattern();
    const at = this.cursor.at();
    if (!pattern) return;
    if (!this.cursor.hasSelection() && at !== null && at >= pattern.length) return this.grow(limb);
    const places = this.cursor.places();
    const playing = pattern.strokes.flatMap((s, i) => (s.limb === limb && places.includes(s.at) ? [i] : []));
    if (playing.length > 0 && playing.length === places.length) {
      this.repeats.touch(restEdits(pattern, playing));
      return;
    }
    const taken = new Set(playing.map((i) => pattern.strokes[i]?.at));
    const level = (place: number): Level => {
      const there = pattern.strokes.filter((s) => s.at === place);
      return there.length > 0 && there.every((s) => s.level === 'accent') && this.cursor.hasSelection()
        ? 'accent'
        : 'tap';
    };
    const free = places.filter((place) => !taken.has(ticks(place)));
    this.repeats.touch(free.flatMap((place) => writeEdits(pattern, place, { limb, level: level(place) }, true)));
  }

  private write(limb: Limb, level: Level): void {
    const pattern = this.cursor.pattern();
    if (!pattern) return;
    const { last, ornament: waiting, joins: asked } = this.begun;
    const joins = asked && last !== null;
    const at = joins ? last : (this.cursor.at() ?? 0);
    const ornament = waiting && isHand(limb) ? waiting : null;
    const typed: TypedStroke = ornament ? { limb, level, ornament } : { limb, level };
    this.begin({ joins: false, ornament: null });
    if (at >= pattern.length) {
      this.grow(`${ornament ? LETTER_OF[ornament] : ''}${level === 'ghost' ? limb.toLowerCase() : limb}`);
      return;
    }
    this.repeats.touch(writeEdits(pattern, at, typed, joins));
    this.begin({ last: at });
    if (!joins) this.cursor.goOn(at);
  }

  /** What is typed behind the end becomes part of the source. */
  private grow(text: string): void {
    const recipe = this.bench.recipe();
    const next = recipe && withTyped(recipe, text);
    const before = this.cursor.pattern()?.length ?? 0;
    if (!next) return;
    this.bench.replace(next);
    this.begin({ last: before });
    this.cursor.goOn(before);
  }

  private rest(): void {
    const at = this.cursor.at() ?? 0;
    const pattern = this.cursor.pattern();
    if (!pattern) return;
    if (at >= pattern.length) this.grow('-');
    else {
      this.repeats.touch(restEdits(pattern, inRange(pattern, at, at + 1)));
      this.cursor.goOn(at);
    }
    this.begin({ last: null });
  }

  private accentLast(): void {
    const pattern = this.cursor.pattern();
    const at = this.begun.last ?? this.cursor.at();
    if (pattern && at !== null) this.repeats.touch(levelEdits(pattern, inRange(pattern, at, at + 1), 'accent'));
  }
}
