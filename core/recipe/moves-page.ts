import { build } from './build';
import { MOVE_EXAMPLES, type MoveExample } from './examples';
import type { Recipe } from './recipe';
import { MOVE_NAMES, MOVES, type MoveEntry } from './registry';
import { gridName } from '../time';

/** The recipe of an example. */
export function exampleRecipe({ before, meter, grid, move, params }: MoveExample): Recipe {
  return {
    source: { kind: 'typed', text: before, meter, grid },
    moves: [{ id: 'example', on: true, move, params } as MoveEntry],
  };
}

/** docs/moves.md: every move with its sentences and examples, in stroke text before and after. */
export function movesPage(): string {
  const parts = MOVE_NAMES.map((name) => {
    const rows = MOVE_EXAMPLES.filter((e) => e.move === name).map((e) => {
      const sentence = build(exampleRecipe(e))
        .trail.map((step) => step.sentence)
        .join();
      return `| ${sentence} | \`${e.before}\` on ${gridName(e.grid)} in ${e.meter} | \`${e.after}\`${e.on ? ` on ${e.on}` : ''} |`;
    });
    return `## ${MOVES[name].title}\n\n${MOVES[name].hint}\n\n| sentence | before | after |\n|---|---|---|\n${rows.join('\n')}\n`;
  });
  return `# The moves\n\nA recipe is a source and moves, one after the other. Each move below stands with examples that the tests work out; this page is written from them by \`npm run gen\`.\nWhat is struck stands in square brackets where it is not the limb's usual voice.\n\n${parts.join('\n')}`;
}
