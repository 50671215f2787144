import type { Block, Today } from '@core/plan';
import type { ShelfIndex } from '../../knowledge/shelf-index.service';

/** A day of the week as it is laid out now. */
export interface WeekDay {
  readonly day: number;
  readonly minutes: number;
  readonly blocks: readonly Block[];
}

const DAYS = 7;

/**
 * The next seven days as they are laid out from what is known today, the same minutes each. What is kept or begun on
 * one of them is not asked for again on the next, as it will have been played; what has a goal may be. Practice changes
 * all of it: each day is laid out anew when it comes.
 */
export async function weekOf(
  index: Pick<ShelfIndex, 'plan'>,
  { running: _running, before: _before, ...wishes }: Today,
): Promise<readonly WeekDay[]> {
  const days: WeekDay[] = [];
  const kept = new Set<string>();
  for (let i = 0; i < DAYS; i++) {
    const first = i === 0;
    const asked = first ? wishes : { ...wishes, held: [], arranged: [], done: [] };
    const dropped = [...new Set([...(first ? wishes.dropped : []), ...kept])];
    const plan = await index.plan({ ...asked, dropped, day: wishes.day + i });
    const blocks = plan.blocks.filter((b) => b.kind !== 'break');
    for (const b of blocks) if (b.phrase !== null && (b.kind === 'keep' || b.kind === 'new')) kept.add(b.phrase);
    days.push({ day: wishes.day + i, minutes: blocks.reduce((n, b) => n + b.minutes, 0), blocks });
  }
  return days;
}
