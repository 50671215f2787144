import { ChangeDetectionStrategy, Component, computed, inject, resource, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { isExportDue } from '@core/shelf';
import { now } from '../../environment/clock';
import { currentShelf } from '../../environment/which-shelf';
import { Database } from '../../storage/database';
import { BackupService } from '../../storage/files/backup.service';
import { OwnFolder } from '../../storage/files/own-folder.service';
import { ALL_TRIES } from '../../storage/tries';

/** One quiet line when nothing was exported for two weeks in which something changed, and no folder follows. */
@Component({
  selector: 'ls-export-line',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (due()) {
      <p class="line quiet" role="status">
        {{ words() }} This shelf lies in this browser only.
        <a routerLink="/kit" [queryParams]="{ part: 'data' }">Export it</a>
        <button type="button" class="btn small plain" (click)="later.set(true)">Later</button>
      </p>
    }
  `,
  styles: `
    .line {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 4px 10px;
      margin: 0;
      padding: 4px 24px;
    }
    @container place (max-width: 628px) {
      .line {
        padding-inline: 12px;
      }
    }
  `,
})
export class ExportLineComponent {
  private readonly database = inject(Database);
  private readonly backup = inject(BackupService);
  private readonly folder = inject(OwnFolder);
  readonly later = signal(false);
  private readonly facts = resource({
    loader: () =>
      this.database.read(null, async () => {
        const { db } = this.database;
        const byTime = db.phrases.orderBy('changed');
        const [first] = await db.phrases.bulkGet(await byTime.clone().limit(1).primaryKeys());
        const [last] = await db.phrases.bulkGet(await byTime.clone().reverse().limit(1).primaryKeys());
        const tries = await db.tallies.get(ALL_TRIES);
        const changed = Math.max(last?.changed ?? -1, tries?.lastAt ?? -1);
        return { began: first?.changed ?? null, changed: changed < 0 ? null : changed };
      }),
  });
  readonly due = computed(() => {
    const facts = this.facts.hasValue() ? this.facts.value() : null;
    if (!facts || this.later() || currentShelf() === 'demo' || this.folder.name() !== null) return false;
    return isExportDue({ exported: this.backup.now().last, ...facts }, now());
  });
  readonly words = computed(() => {
    const { last } = this.backup.now();
    if (last === null) return 'Never exported.';
    return `Last export ${Math.floor((now() - last) / 86_400_000)} days ago.`;
  });
}
