import type { Key } from '../../common/keys.service';
import type { ShowsStore } from './shows.store';

interface ShowsPlace {
  readonly store: ShowsStore;
  run(): void;
  paper(): void;
}

/** The keys of Shows. */
export function showsKeys(place: ShowsPlace): readonly Key[] {
  const { store } = place;
  const own = (act: (spot: string) => void) => (): void => {
    const spot = store.spot();
    if (spot) act(spot.spot.id);
  };
  const step = (by: number) => (): void => {
    const all = store.show()?.cues.flatMap((c) => c.spots.map((s) => s.id)) ?? [];
    const at = all.indexOf(store.spot()?.spot.id ?? '');
    const next = all[Math.min(all.length - 1, Math.max(0, at + by))];
    if (next !== undefined) store.lookAt(next);
  };
  return [
    { combo: 'Space', shown: 'Space', does: 'Run through the show', run: () => place.run() },
    { combo: 'ArrowRight', shown: '→', does: 'Next spot', run: step(1) },
    { combo: 'ArrowLeft', shown: '←', does: 'Spot before', run: step(-1) },
    { combo: 'KeyF', shown: 'F', does: 'Fill the show', run: () => void store.fill() },
    {
      combo: 'KeyN',
      shown: 'N',
      does: 'Another phrase for this spot',
      run: () => {
        const spot = store.spot();
        if (spot) store.another(spot.spot, store.choice()?.fits ?? []);
      },
    },
    { combo: 'Delete', shown: 'Del', does: 'Leave this spot open', run: own((id) => void store.put(id, null)) },
    { combo: 'KeyP', shown: 'P', does: 'The show on paper', run: () => place.paper() },
    { combo: '$mod+KeyZ', shown: 'Ctrl Z', does: 'Undo the last change', run: () => void store.undo() },
  ];
}
