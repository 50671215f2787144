import type { CursorStore } from './cursor.store';
import type { TypingStore } from './typing.store';

/** Keys that mean something while the ribbon has the keyboard. Everything else goes on to the place. */
type Action = (cursor: CursorStore, slot: number) => void;

const PLAIN: Readonly<Record<string, Action>> = {
  ArrowLeft: (c) => c.step(-1),
  ArrowRight: (c) => c.step(1),
  ArrowUp: (c) => c.level(1),
  ArrowDown: (c) => c.level(-1),
  Home: (c) => c.toEnd('first'),
  End: (c) => c.toEnd('last'),
  Delete: (c) => c.rest(),
  Backspace: (c) => c.rubOut(),
};
const SHIFTED: Readonly<Record<string, Action>> = { ArrowLeft: (c) => c.extend(-1), ArrowRight: (c) => c.extend(1) };
const ALT: Readonly<Record<string, Action>> = {
  ArrowLeft: (c, slot) => c.displace(-slot),
  ArrowRight: (c, slot) => c.displace(slot),
};
const CONTROL: Readonly<Record<string, Action>> = {
  a: (c) => c.chooseAll(),
  c: (c) => void c.copy(),
  x: (c) => c.cut(),
  v: (c) => c.paste(),
};

/**
 * Does what a key means on the ribbon. False when it means nothing here. `slot` is a slot of the home grid in ticks.
 */
export function ribbonKey(event: KeyboardEvent, cursor: CursorStore, typing: TypingStore, slot: number): boolean {
  const { key } = event;
  const table = event.ctrlKey || event.metaKey ? CONTROL : event.altKey ? ALT : event.shiftKey ? SHIFTED : PLAIN;
  const action = table[event.ctrlKey || event.metaKey ? key.toLowerCase() : key];
  if (action) {
    action(cursor, slot);
    return true;
  }
  if (event.ctrlKey || event.metaKey || event.altKey || key.length !== 1) return false;
  return typing.type(key);
}

/** What `?` says of the ribbon's own keys. */
export const RIBBON_KEYS: readonly (readonly [string, string])[] = [
  ['R L K J H', 'Write a stroke; small letters are ghosts'],
  ['! + -', 'Accent, both together, rest'],
  ['f d t z', 'Before a hand: flam, drag, ruff, buzz'],
  ['← →', 'Next slot; with Shift choose, with Alt displace'],
  ['↑ ↓', 'Stick higher, lower'],
  ['Del', 'Rest; Ctrl C, X, V copy, cut, paste'],
];
