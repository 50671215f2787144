import type { Key } from '../../common/keys.service';
import { ROUNDS, SPEEDS, type HearingStore } from './hearing.store';
import type { ListenStore } from './listen.store';

interface ListenPlace {
  readonly store: ListenStore;
  readonly hearing: HearingStore;
  zoom(by: number): void;
  choose(): void;
  toBench(): void;
}

/**
 * The keys of Listen. Letters name the chosen stroke as they do on the Bench: capitals struck, small letters ghosts.
 */
export function listenKeys(place: ListenPlace): readonly Key[] {
  const { store, hearing } = place;
  const hand = (hand: 'R' | 'L', level: 'ghost' | 'tap') => (): void => {
    const kinds = store.stroke()?.kinds.filter((k) => k !== 'kick') ?? [];
    store.say({ hand, level, kinds: kinds.length > 0 ? kinds : ['drum'] });
  };
  const faster = (by: 1 | -1) => (): void => {
    const at = SPEEDS.findIndex((s) => s === hearing.speed());
    hearing.speed.set(SPEEDS[Math.max(0, Math.min(SPEEDS.length - 1, at + by))] ?? 1);
  };
  const nextRound = (): void => {
    const at = ROUNDS.indexOf(hearing.round());
    hearing.round.set(ROUNDS[(at + 1) % ROUNDS.length] ?? 'lick');
  };
  return [
    { combo: 'Space', shown: 'Space', does: 'Play and stop', run: () => void hearing.toggle() },
    { combo: 'b', shown: 'B', does: 'The lick begins here', run: () => store.mark('from') },
    { combo: 'e', shown: 'E', does: 'The lick ends here', run: () => store.mark('to') },
    { combo: 't', shown: 'T', does: 'Tap the beat while it plays', run: () => store.tap() },
    { combo: 'o', shown: 'O', does: 'The 1 is here', run: () => store.oneIsHere() },
    { combo: 'ArrowRight', shown: '→', does: 'The next beat', run: () => store.goTo(store.beat() + 1) },
    { combo: 'ArrowLeft', shown: '←', does: 'The beat before', run: () => store.goTo(store.beat() - 1) },
    { combo: 'ArrowDown', shown: '↓', does: 'The next stroke', run: () => store.step(1) },
    { combo: 'ArrowUp', shown: '↑', does: 'The stroke before', run: () => store.step(-1) },
    { combo: 'Shift+ArrowRight', shown: 'Shift →', does: 'Move to the next slot', run: () => store.nudge(1) },
    { combo: 'Shift+ArrowLeft', shown: 'Shift ←', does: 'Move to the slot before', run: () => store.nudge(-1) },
    { combo: 'n', shown: 'N', does: 'The next unsure stroke', run: () => store.nextUnsure() },
    { combo: 'w', shown: 'W', does: 'Loop: lick, bar, beat, into the next', run: nextRound },
    { combo: ',', shown: ',', does: 'Slower', run: faster(-1) },
    { combo: '.', shown: '.', does: 'Faster', run: faster(1) },
    { combo: 'k', shown: 'K', does: 'It is a kick', run: () => store.say({ kinds: ['kick'] }) },
    { combo: 'd', shown: 'D', does: 'It is a drum', run: () => store.say({ kinds: ['drum'] }) },
    { combo: 'c', shown: 'C', does: 'It is a cymbal', run: () => store.say({ kinds: ['cymbal'] }) },
    { combo: 'Shift+K', shown: 'Shift K', does: 'A kick with it, or not', run: () => store.toggle('kick') },
    { combo: 'Shift+C', shown: 'Shift C', does: 'A cymbal with it, or not', run: () => store.toggle('cymbal') },
    { combo: 'Shift+R', shown: 'Shift R', does: 'The right hand', run: hand('R', 'tap') },
    { combo: 'Shift+L', shown: 'Shift L', does: 'The left hand', run: hand('L', 'tap') },
    { combo: 'r', shown: 'R', does: 'A ghost of the right hand', run: hand('R', 'ghost') },
    { combo: 'l', shown: 'L', does: 'A ghost of the left hand', run: hand('L', 'ghost') },
    { combo: 'Shift+!', shown: '!', does: 'An accent, or none', run: () => accent(store) },
    { combo: '-', shown: '-', does: 'No stroke there', run: () => store.say({ gone: true }) },
    { combo: 'Enter', shown: 'Enter', does: 'Accept the proposal', run: () => asProposed(store) },
    { combo: 'Shift+Enter', shown: 'Shift Enter', does: 'Open on the Bench', run: () => place.toBench() },
    { combo: 'z', shown: 'Z', does: 'Zoom in', run: () => place.zoom(0.6) },
    { combo: 'Shift+Z', shown: 'Shift Z', does: 'Zoom out', run: () => place.zoom(1.6) },
    { combo: 'i', shown: 'I', does: 'Another recording', run: () => place.choose() },
    { combo: '$mod+KeyZ', shown: 'Ctrl Z', does: 'Undo', run: () => store.undo() },
    { combo: '$mod+Shift+KeyZ', shown: 'Ctrl Shift Z', does: 'Redo', run: () => store.redo() },
  ];
}

function accent(store: ListenStore): void {
  const s = store.stroke();
  if (s) store.say({ level: s.level === 'accent' ? 'tap' : 'accent' });
}

function asProposed(store: ListenStore): void {
  const s = store.stroke();
  if (s) store.say({ kinds: s.kinds });
}
