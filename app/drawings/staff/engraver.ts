import type { Pattern } from '@core/pattern';
import { inSteps } from '../../common/idle';
import { stepLines, type StaffPlace } from './draw';
import { topsOf, type PlannedLine, type StaffOptions } from './plan';

/** A line that is engraved: its place on the page and where its moments stand, measured from itself. */
interface EngravedLine {
  readonly paper: HTMLDivElement;
  readonly from: number;
  readonly places: readonly StaffPlace[];
}

/** Engraves the lines of a staff bar by bar between frames, and keeps those that look the same. */
export class LineEngraver {
  private lines: ReadonlyMap<string, EngravedLine> = new Map();
  private cancel: (() => void) | null = null;

  constructor(private readonly host: HTMLElement) {}

  /**
   * Draws what is planned in place of what is there; `done` is told where each moment stands, `failed` what went wrong.
   */
  draw(
    plan: readonly PlannedLine[],
    pattern: Pattern,
    options: StaffOptions,
    done: (places: readonly StaffPlace[]) => void,
    failed: (error: unknown) => void,
  ): void {
    this.stop();
    this.cancel = inSteps(
      this.lined(plan, pattern, options),
      (lines) => {
        this.lines = lines;
        done(this.lay([...lines.values()], plan, plan[0]?.scale ?? options.scale));
      },
      failed,
    );
  }

  private *lined(
    plan: readonly PlannedLine[],
    pattern: Pattern,
    options: StaffOptions,
  ): Generator<void, ReadonlyMap<string, EngravedLine>> {
    const drawn = new Map<string, EngravedLine>();
    const alike = new Map<string, number>();
    for (const line of plan) {
      // Lines that look the same are told apart by how many came before.
      const before = alike.get(line.key) ?? 0;
      alike.set(line.key, before + 1);
      const key = `${line.key} ${before}`;
      // Lines that are there already cost nothing.
      drawn.set(key, this.lines.get(key) ?? (yield* this.engrave(line, pattern, options)));
    }
    return drawn;
  }

  stop(): void {
    this.cancel?.();
    this.cancel = null;
  }

  /**
   * Puts the lines under one another. What is there already is only moved, so that the page has nothing to lay out
   * anew.
   */
  private lay(lines: readonly EngravedLine[], plan: readonly PlannedLine[], scale: number): readonly StaffPlace[] {
    const kept = new Set<Element>(lines.map((l) => l.paper));
    for (const old of [...this.host.children]) if (!kept.has(old)) old.remove();
    const tops = topsOf(plan);
    this.host.style.height = `${(tops.at(-1) ?? 0) + 6 * scale}px`;
    return lines.flatMap(({ paper, places, from }, n) => {
      const top = tops[n] ?? 0;
      Object.assign(paper.style, { top: `${top}px`, visibility: '' });
      const by = (plan[n]?.from ?? from) - from;
      return places.map((p) => ({ tick: p.tick + by, x: p.x, top: p.top + top, bottom: p.bottom + top }));
    });
  }

  private *engrave(line: PlannedLine, pattern: Pattern, options: StaffOptions): Generator<void, EngravedLine> {
    const paper = document.createElement('div');
    const height = `${(line.height + 6) * line.scale}px`;
    // The package measures what it draws, so the paper is on the page, out of sight, until all lines are there.
    Object.assign(paper.style, {
      position: 'absolute',
      left: '0',
      width: '100%',
      height,
      visibility: 'hidden',
      contain: 'strict',
    });
    this.host.append(paper);
    const places = yield* stepLines(paper, [line], pattern, options);
    paper.style.contentVisibility = 'auto';
    return { paper, from: line.from, places };
  }
}
