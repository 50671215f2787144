import type { Key } from '../../common/keys.service';
import type { BenchCommands } from './bench.commands';
import { RIBBON_KEYS } from './ribbon/ribbon-keys';

/** What only the page of the Bench itself can do: the keyboard goes somewhere on it. */
export interface BenchPage {
  readonly commands: BenchCommands;
  edit(): void;
  toWords(): void;
}

/**
 * The keys of the Bench. Those of the ribbon come first for as long as the ribbon has the keyboard; they are listed
 * here only to be read.
 */
export function benchKeys(page: BenchPage): readonly Key[] {
  const bench = page.commands;
  const { keeping, lines, sound, store, view } = bench;
  return [
    { combo: 'Space', shown: 'Space', does: 'Play and stop', run: () => sound.toggle() },
    { combo: 'Enter', shown: 'Enter', does: 'Play from the cursor', run: () => sound.fromCursor() },
    { combo: '$mod+z', shown: 'Ctrl Z', does: 'Undo', run: () => store.undo() },
    { combo: '$mod+Shift+z', shown: 'Ctrl Shift Z', does: 'Redo', run: () => store.redo() },
    { combo: '$mod+y', shown: 'Ctrl Y', does: 'Redo', run: () => store.redo() },
    { combo: 'e', shown: 'E', does: 'Edit on the ribbon', run: () => page.edit() },
    { combo: '/', shown: '/', does: 'Type a change', run: () => page.toWords() },
    { combo: ',', shown: ',', does: 'One step back through the recipe', run: () => bench.walk(-1) },
    { combo: '.', shown: '.', does: 'One step on through the recipe', run: () => bench.walk(1) },
    { combo: 'k', shown: 'K', does: 'Keep it', run: () => keeping.ask() },
    {
      combo: 'Shift+K',
      shown: 'Shift K',
      does: 'Keep as the next variant',
      run: () => void keeping.keepNext(),
    },
    { combo: 'o', shown: 'O', does: 'Earlier versions', run: () => keeping.openStates() },
    { combo: 'v', shown: 'V', does: 'Variants', run: () => bench.toggleSheet('variants') },
    { combo: 'q', shown: 'Q', does: 'Ask for a phrase', run: () => bench.toggleSheet('compose') },
    { combo: 'b', shown: 'B', does: 'Find a sticking', run: () => bench.toggleSheet('sticking') },
    {
      combo: 'Escape',
      shown: 'Esc',
      does: 'Close the panel',
      // Esc belongs to a dialog or to the ribbon first, while they have the keyboard.
      run: (event) => {
        if (!(event.target instanceof Element && event.target.closest('.p-dialog, [role=application]')))
          view.closeSheet();
      },
    },
    { combo: 'a', shown: 'A', does: 'Travel of the hands over the kit', run: () => view.toggleLower('paths') },
    { combo: 'n', shown: 'N', does: 'Staff', run: () => view.toggleLower('staff') },
    { combo: 'c', shown: 'C', does: 'Compare with another phrase', run: () => view.toggleLower('compare') },
    { combo: 'x', shown: 'X', does: 'Hear the other phrase, on the beat', run: () => bench.hearOther() },
    { combo: 's', shown: 'S', does: 'Sung line', run: () => lines.sung.update((on) => !on) },
    { combo: 't', shown: 'T', does: 'Stroke types', run: () => lines.types.update((on) => !on) },
    {
      combo: 'g',
      shown: 'G',
      does: 'Groove only: fills fade',
      run: () => lines.grooveOnly.update((on) => !on),
    },
    { combo: 'h', shown: 'H', does: 'Count in half-time, double-time, as written', run: () => lines.nextPace() },
    { combo: 'p', shown: 'P', does: 'Print a page', run: () => bench.print() },
    {
      combo: 'Shift+A',
      shown: 'Shift A',
      does: 'Share or export: link, MIDI, score, sound',
      run: () => bench.takeAlong(),
    },
    { combo: 'i', shown: 'I', does: 'Bring in a file', run: () => bench.bringIn() },
    { combo: 'd', shown: 'D', does: 'Drill it', run: () => void keeping.drill() },
    { combo: 'ArrowUp', shown: '↑', does: '1 bpm faster', run: () => bench.nudge(1) },
    { combo: 'ArrowDown', shown: '↓', does: '1 bpm slower', run: () => bench.nudge(-1) },
    { combo: 'Shift+ArrowUp', shown: 'Shift ↑', does: '5 bpm faster', run: () => bench.nudge(5) },
    { combo: 'Shift+ArrowDown', shown: 'Shift ↓', does: '5 bpm slower', run: () => bench.nudge(-5) },
    ...RIBBON_KEYS.map(([shown, does], i): Key => ({
      combo: `Control+Alt+Shift+F${i + 13}`,
      shown,
      does,
      run: () => undefined,
    })),
  ];
}
