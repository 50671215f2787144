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
    { combo: 'Space', shown: 'Space', does: 'Start what comes next, or go back to it', run: () => place.start() },
    { combo: 'ArrowRight', shown: '→', does: 'Five minutes more', run: by(5) },
    { combo: 'ArrowLeft', shown: '←', does: 'Five minutes less', run: by(-5) },
    { combo: '$mod+KeyZ', shown: 'Ctrl Z', does: 'Take back the last wish', run: () => store.undo() },
  ];
}
