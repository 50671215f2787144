import type { Key } from '../../common/keys.service';
import type { TodayStore } from './today.store';

interface TodayPlace {
  readonly store: TodayStore;
  start(): void;
}

/** The keys of Today. */
export function todayKeys(place: TodayPlace): readonly Key[] {
  const { store } = place;
  const by = (n: number) => (): void => store.setMinutes(store.wishes().minutes + n);
  return [
    { combo: 'Space', shown: 'Space', does: 'Start the next block, or return to it', run: () => place.start() },
    { combo: 'ArrowRight', shown: '→', does: 'Five minutes more', run: by(5) },
    { combo: 'ArrowLeft', shown: '←', does: 'Five minutes less', run: by(-5) },
    { combo: '$mod+KeyZ', shown: 'Ctrl Z', does: 'Undo the last change', run: () => store.undo() },
  ];
}
