import type { ShelfRow } from '../../knowledge/index/entry';
import type { Key } from '../../common/keys.service';

/** What the keys of the shelf work on. */
export interface ShelfPage {
  pointedAt(): ShelfRow | null;
  bringIn(): void;
  create(): Promise<boolean>;
  open(row: ShelfRow): Promise<boolean>;
  hear(row: ShelfRow): Promise<void>;
  stop(): void;
  choose(row: ShelfRow, upTo: boolean): void;
  chooseAll(): Promise<void>;
  letGo(): void;
  moveOnBoard(row: ShelfRow, by: 1 | -1): Promise<void>;
  readonly transport: { playing(): boolean };
  readonly acts: {
    remove(ids: readonly string[], name: string | null): Promise<void>;
    duplicate(id: string): Promise<void>;
    drill(ids: readonly string[]): void;
    undo(): Promise<void>;
  };
  show(how: 'table' | 'map'): void;
  readonly kinOf: { set(row: ShelfRow): void };
  box(): { focus(): void } | undefined;
}

/** The keys of the Shelf. */
export function shelfKeys(page: ShelfPage): readonly Key[] {
  const pointed = (act: (row: ShelfRow) => void) => (): void => {
    const row = page.pointedAt();
    if (row) act(row);
  };
  return [
    { combo: 'n', shown: 'N', does: 'New phrase', run: () => void page.create() },
    { combo: 'i', shown: 'I', does: 'Bring in a file', run: () => page.bringIn() },
    {
      combo: 'Space',
      shown: 'Space',
      does: 'Hear the phrase; again to stop',
      run: () => (page.transport.playing() ? page.stop() : pointed((r) => void page.hear(r))()),
    },
    {
      combo: 'h',
      shown: 'H, held',
      does: 'Hear the phrase while the key is held',
      run: pointed((r) => void heldPreview(page, r)),
    },
    { combo: 'Enter', shown: 'Enter', does: 'Open on the Bench', run: pointed((r) => void page.open(r)) },
    { combo: 'd', shown: 'D', does: 'Drill the phrase', run: pointed((r) => page.acts.drill([r.id])) },
    { combo: 'c', shown: 'C', does: 'Choose the phrase, or not', run: pointed((r) => page.choose(r, false)) },
    {
      combo: 'Shift+C',
      shown: 'Shift C',
      does: 'Choose all up to here',
      run: pointed((r) => page.choose(r, true)),
    },
    { combo: '$mod+a', shown: 'Ctrl A', does: 'Choose all found', run: () => void page.chooseAll() },
    { combo: 'Escape', shown: 'Esc', does: 'Choose none', run: () => page.letGo() },
    { combo: '+', shown: '+', does: 'Duplicate the phrase', run: pointed((r) => void page.acts.duplicate(r.id)) },
    {
      combo: 'f',
      shown: 'F',
      does: 'Related: what it was made from, and rotated or hand-swapped copies',
      run: pointed((r) => page.kinOf.set(r)),
    },
    { combo: 't', shown: 'T', does: 'Ribbons or table', run: () => page.show('table') },
    { combo: 'm', shown: 'M', does: 'The map of what the shelf covers, or not', run: () => page.show('map') },
    {
      combo: 'Alt+ArrowUp',
      shown: 'Alt ↑',
      does: 'Move up on its board',
      run: pointed((r) => void page.moveOnBoard(r, -1)),
    },
    {
      combo: 'Alt+ArrowDown',
      shown: 'Alt ↓',
      does: 'Move down on its board',
      run: pointed((r) => void page.moveOnBoard(r, 1)),
    },
    {
      combo: 'Delete',
      shown: 'Del',
      does: 'Take the phrase off the shelf',
      run: pointed((r) => void page.acts.remove([r.id], r.name)),
    },
    {
      combo: '$mod+z',
      shown: 'Ctrl Z',
      does: 'Undo on the shelf',
      run: () => void page.acts.undo(),
    },
    { combo: '/', shown: '/', does: 'Ask the shelf', run: () => page.box()?.focus() },
  ];
}

/** Plays until the key is let go. */
async function heldPreview(page: ShelfPage, row: ShelfRow): Promise<void> {
  if (page.transport.playing()) return;
  const held = { up: false };
  const over = (event: KeyboardEvent): void => {
    if (event.key.toLowerCase() !== 'h') return;
    held.up = true;
    page.stop();
    window.removeEventListener('keyup', over);
  };
  window.addEventListener('keyup', over);
  await page.hear(row);
  if (held.up) page.stop();
}
