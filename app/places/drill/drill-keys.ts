import type { Key } from '../../common/keys.service';
import type { DrillStore } from './drill.store';

/** What the keys of the room can do. */
interface Room {
  readonly store: DrillStore;
  pressGood(): void;
  pressBad(): void;
  toggleSounds(): void;
  toggleStaff(): void;
  endBlock(): Promise<void>;
}

/** The keys of the practice room: Space, Enter and the arrows alone run a whole drill, so that a pedal does too. */
export function drillKeys(room: Room): readonly Key[] {
  const { store } = room;
  const good = (): void => room.pressGood();
  const bad = (): void => room.pressBad();
  return [
    { combo: 'Space', shown: 'Space', does: 'Start; then: clean', run: good },
    { combo: 'ArrowUp', shown: '↑', does: 'The same', run: good },
    { combo: 'ArrowRight', shown: '→', does: 'The same', run: good },
    { combo: 'Enter', shown: 'Enter', does: 'Messy; before the start: stop for today', run: bad },
    { combo: 'ArrowDown', shown: '↓', does: 'The same', run: bad },
    { combo: 'ArrowLeft', shown: '←', does: 'Pause', run: () => store.dispatch({ kind: 'pause' }) },
    { combo: 's', shown: 'S', does: 'Stay on this rung, or not', run: () => store.dispatch({ kind: 'stay' }) },
    { combo: 'PageDown', shown: 'Page ↓', does: 'One rung down', run: () => store.dispatch({ kind: 'down' }) },
    { combo: 'i', shown: 'I', does: 'Drill the hard spot', run: () => store.isolate() },
    {
      combo: 'h',
      shown: 'H',
      does: 'Half speed, to look at it; nothing counts',
      run: () => store.toggleSlow(),
    },
    { combo: 'n', shown: 'N', does: 'Staff in place of the ribbon', run: () => room.toggleStaff() },
    { combo: 'c', shown: 'C', does: 'Click, counts and levels', run: () => room.toggleSounds() },
    { combo: 'b', shown: 'B', does: 'End the block, back to Today', run: () => void room.endBlock() },
    { combo: 'Escape', shown: 'Esc', does: 'Stop here', run: () => store.dispatch({ kind: 'stop' }) },
  ];
}
