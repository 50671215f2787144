import { ScrollingModule } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import { count } from '@core/base';
import { SHELF_LIMITS, type MergeKind } from '@core/shelf';
import type { Chosen, Incoming } from '../../storage/files/shelf-files.service';
import { SettingsRepo } from '../../storage/settings.repo';

/** What a file would change, before it is done: each phrase, the log, and each setting, to be taken or left. */
@Component({
  selector: 'ls-incoming',
  imports: [ScrollingModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="incoming" role="status">
      <p><strong>The file can be read.</strong> {{ fileWords() }} It would change:</p>
      @if (nothing()) {
        <p>Nothing: everything is already here.</p>
      }
      @for (g of incoming().groups; track g.kind) {
        <details>
          <summary>{{ g.words }}{{ outOf(g.kind) }}</summary>
          <cdk-virtual-scroll-viewport itemSize="32" class="list" [style.height.px]="heightOf(g.lines.length)">
            <label *cdkVirtualFor="let l of g.lines" class="line"
              ><input
                type="checkbox"
                [checked]="!without().has(l.id)"
                [disabled]="g.kind === 'stays off'"
                (change)="toggle(l.id)"
              />
              <span class="cut">{{ l.name.slice(0, 120) }}</span></label
            >
          </cdk-virtual-scroll-viewport>
        </details>
      }
      @if (incoming().tries + incoming().takes + incoming().drills + incoming().sittings > 0) {
        <label class="line"
          ><input type="checkbox" [checked]="log()" (change)="log.set(!log())" /> {{ logWords() }}</label
        >
      }
      @if (clipWords(); as words) {
        <p class="line">{{ words }}</p>
      }
      @if (incoming().boards > 0) {
        <label class="line"
          ><input type="checkbox" [checked]="boards()" (change)="boards.set(!boards())" /> {{ boardWords() }}</label
        >
      }
      @if (incoming().shows > 0) {
        <label class="line"
          ><input type="checkbox" [checked]="shows()" (change)="shows.set(!shows())" /> {{ showWords() }}</label
        >
      }
      @if (incoming().lessons > 0) {
        <label class="line"
          ><input type="checkbox" [checked]="lessons()" (change)="lessons.set(!lessons())" /> {{ lessonWords() }}</label
        >
      }
      @for (n of incoming().named; track n.key) {
        <label class="line"
          ><input type="checkbox" [checked]="named().has(n.key)" (change)="toggleNamed(n.key)" /> {{ n.words }}, where
          the file is newer</label
        >
      }
      <div class="row">
        <button type="button" class="btn primary" [disabled]="nothing()" (click)="take()">Put it on the shelf</button>
        <button type="button" class="btn" (click)="left.emit()">Not now</button>
      </div>
    </div>
  `,
  styles: `
    .incoming {
      display: flex;
      flex-direction: column;
      gap: 8px;
      padding: 12px 14px;
      border-left: 4px solid var(--accent);
      background: var(--sunken);
    }
    .line {
      display: flex;
      gap: 8px;
      align-items: center;
      min-height: 32px;
    }
    summary {
      cursor: pointer;
      min-height: 28px;
    }
    input {
      flex: none;
      width: 24px;
      height: 24px;
      accent-color: var(--accent);
    }
    .row {
      display: flex;
      gap: 8px;
      margin-top: 6px;
    }
  `,
})
export class IncomingComponent {
  readonly settings = inject(SettingsRepo);
  readonly incoming = input.required<Incoming>();
  readonly taken = output<Chosen>();
  readonly left = output();
  readonly without = linkedSignal<Incoming, ReadonlySet<string>>({
    source: this.incoming,
    computation: () => new Set(),
  });
  readonly log = linkedSignal({ source: this.incoming, computation: () => true });
  readonly boards = linkedSignal({ source: this.incoming, computation: () => true });
  readonly lessons = linkedSignal({ source: this.incoming, computation: () => true });
  readonly shows = linkedSignal({ source: this.incoming, computation: () => true });
  readonly named = linkedSignal<Incoming, ReadonlySet<string>>({
    source: this.incoming,
    computation: ({ named }) => new Set(named.map((n) => n.key)),
  });
  readonly nothing = computed(() => {
    const { groups, tries, takes, clips, drills, boards, shows, sittings, lessons, named } = this.incoming();
    const others = tries + takes + clips + drills + boards + shows + sittings + lessons + named.length;
    return groups.every((g) => g.kind === 'stays off') && others === 0;
  });
  readonly fileWords = computed(() =>
    this.incoming().file === 'changed' ? 'It was changed after export. If that was not you, use another copy.' : '',
  );
  readonly logWords = computed(() => {
    const { tries, takes, drills, sittings } = this.incoming();
    return [
      count(tries, 'try of the log', 'tries of the log'),
      ...(takes > 0 ? [count(takes, 'take')] : []),
      ...(drills > 0 ? [count(drills, 'drill')] : []),
      ...(sittings > 0 ? [count(sittings, 'sitting')] : []),
    ].join(', ');
  });
  readonly clipWords = computed(() => {
    const { clips, clipsGone } = this.incoming();
    const gone =
      clipsGone > 0
        ? `${count(clipsGone, 'older clip')} of yours would be deleted: a shelf holds ${SHELF_LIMITS.clips}.`
        : '';
    const come = clips > 0 ? `With the phrases: ${count(clips, 'clip')} of recordings.` : '';
    return [come, gone].filter((w) => w !== '').join(' ');
  });
  readonly lessonWords = computed(() => count(this.incoming().lessons, 'lesson or report', 'lessons and reports'));
  readonly showWords = computed(() => count(this.incoming().shows, 'show'));
  readonly boardWords = computed(() => count(this.incoming().boards, 'board'));

  outOf(kind: MergeKind): string {
    const lines = this.incoming().groups.find((g) => g.kind === kind)?.lines ?? [];
    const out = lines.filter((l) => this.without().has(l.id)).length;
    return out > 0 ? `, ${out} left out` : '';
  }

  heightOf(many: number): number {
    return Math.min(240, many * 32);
  }

  toggle(id: string): void {
    const next = new Set(this.without());
    if (!next.delete(id)) next.add(id);
    this.without.set(next);
  }

  toggleNamed(key: string): void {
    const next = new Set(this.named());
    if (!next.delete(key)) next.add(key);
    this.named.set(next);
  }

  take(): void {
    this.taken.emit({
      without: [...this.without()],
      log: this.log(),
      boards: this.boards(),
      shows: this.shows(),
      lessons: this.lessons(),
      named: [...this.named()],
    });
  }
}
