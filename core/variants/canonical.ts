import { ticks, type Ticks } from '../time';
import { otherHand } from '../stroke';
import { finestSlot, pickupOf, type Pattern } from '../pattern';

/**
 * Longest pattern, in its finest slots, whose canonical form is taken over all rotations; longer ones are compared as
 * they stand.
 */
const MOST_SLOTS = 4096;

/**
 * A text that is the same for patterns that are rotations or mirrors of each other, and different for all others of the
 * same length: the least of all rotations of the slots and of their mirror. Least rotation after Booth (1980), linear
 * in the slots.
 */
export function canonicalForm(pattern: Pattern): string {
  const slot = finestSlot(pattern);
  const count = pattern.length / slot;
  const plain = slotCodes(pattern, slot, count, false);
  const mirrored = slotCodes(pattern, slot, count, true);
  // What leads in is heard too, though it does not go round.
  const led = pickupOf(pattern).map((s) => `${s.at} ${s.limb} ${s.voice} ${s.level} ${s.ornament ?? ''}`);
  const head = `${pattern.length}:${led.join('|')}`;
  if (count > MOST_SLOTS) return head + [plain.join('|'), mirrored.join('|')].sort().join('');
  const forms = [plain, mirrored].map((codes) => rotated(codes, leastRotation(codes)).join('|'));
  return head + (forms.sort()[0] ?? '');
}

/**
 * A text that is the same for patterns that are played alike, stroke by stroke from the same start: what is on the
 * shelf as it stands, not what could be turned into it.
 */
export function exactForm(pattern: Pattern): string {
  const played = [...pickupOf(pattern), ...pattern.strokes].map(
    (s) => `${s.at}${s.limb}${s.level.charAt(0)}${s.voice}${s.ornament ?? ''}${s.grace ?? ''}`,
  );
  return `${pattern.start}+${pattern.length}:${played.join('|')}`;
}

/** How one pattern is another one turned: by so many ticks later, and with the hands swapped or not. */
export interface Turn {
  readonly by: Ticks;
  readonly mirrored: boolean;
}

/**
 * By how much a pattern is another one turned, the least there is; null when it is not. Of two that are the same it is
 * nought.
 */
export function turnBetween(from: Pattern, to: Pattern): Turn | null {
  if (from.length !== to.length) return null;
  const slot = finestSlot(from);
  const count = from.length / slot;
  if (finestSlot(to) !== slot || count > MOST_SLOTS) return null;
  const wanted = slotCodes(to, slot, count, false);
  for (const mirrored of [false, true]) {
    const codes = slotCodes(from, slot, count, mirrored);
    // A turn of a list is found in the list written twice.
    const twice = `|${[...codes, ...codes].join('|')}|`;
    const at = twice.indexOf(`|${wanted.join('|')}|`);
    if (at < 0) continue;
    const turned = twice.slice(0, at).split('|').length - 1;
    return { by: ticks(((count - turned) % count) * slot), mirrored };
  }
  return null;
}

/** What sounds in each slot, as a short text. Strokes are in order, so those of one slot stand together. */
function slotCodes(pattern: Pattern, slot: number, count: number, mirrored: boolean): string[] {
  const codes = new Array<string>(count).fill('');
  for (const s of pattern.strokes) {
    const i = s.at / slot;
    const limb = mirrored ? otherHand(s.limb) : s.limb;
    const code = `${limb}${s.level.charAt(0)}${s.voice}${s.ornament ?? ''}${s.grace ?? ''}`;
    const there = codes[i];
    // Both hands at once come in the order of their codes, so that the mirror of a unison is written the same way.
    codes[i] = !there ? code : there < code ? `${there}+${code}` : `${code}+${there}`;
  }
  return codes;
}

function rotated<T>(list: readonly T[], by: number): T[] {
  return [...list.slice(by), ...list.slice(0, by)];
}

/**
 * Index at which the least rotation of a list of texts begins.
 * @example
 * leastRotation(['b', 'a', 'c']) // => 1
 */
export function leastRotation(list: readonly string[]): number {
  const n = list.length;
  const at = (i: number): string => list[i % n] ?? '';
  let [i, j, k] = [0, 1, 0];
  // Two candidates; the one that loses a comparison jumps past what was compared.
  while (i < n && j < n && k < n) {
    const [a, b] = [at(i + k), at(j + k)];
    if (a === b) {
      k++;
      continue;
    }
    if (a > b) i += k + 1;
    else j += k + 1;
    if (i === j) j++;
    k = 0;
  }
  return Math.min(i, j);
}
