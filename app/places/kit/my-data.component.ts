import { ChangeDetectionStrategy, Component, computed, inject, resource, signal } from '@angular/core';
import { format } from 'date-fns';
import { Dialog } from 'primeng/dialog';
import { count } from '@core/base';
import { mergeGroups, type MergeLine } from '@core/shelf';
import { AsideRepo } from '../../storage/aside.repo';
import { BackupService } from '../../storage/files/backup.service';
import { Unfetched, UNFETCHED } from '../../environment/workers';
import { ShelfFiles, Stopped, type Chosen, type Incoming } from '../../storage/files/shelf-files.service';
import { NoticesService } from '../../common/notices.service';
import { sizeWords } from '../../playing/own-records';
import { DialogFocusDirective } from '../../widgets/dialog-focus.directive';
import { fileName, saveBlob, saveText } from '../../widgets/save-svg';
import { OwnFolderComponent } from './own-folder.component';
import { IncomingComponent } from './incoming.component';

/** My data: the shelf as a file, out and in, backups, how much is kept here, and what was set aside. */
@Component({
  selector: 'ls-my-data',
  imports: [Dialog, DialogFocusDirective, IncomingComponent, OwnFolderComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="panel">
      <h2>My data</h2>
      <p>
        Everything is kept in this browser{{ usedWords() }}. One file holds the whole shelf: keep it as a backup, or
        bring it in on another device. The two shelves are merged. Its format is
        <a href="schema/shelf-file.schema.json" target="_blank">described as a JSON Schema</a>.
      </p>
      <div class="row">
        <button type="button" class="btn primary" [disabled]="files.working() !== null" (click)="save()">
          Export the shelf
        </button>
        <label class="btn file" [attr.aria-disabled]="files.working() !== null"
          >Bring in a shelf file<input
            #picked
            type="file"
            class="visually-hidden"
            accept=".json,application/json"
            [disabled]="files.working() !== null"
            (change)="pick(picked.files); picked.value = ''"
        /></label>
      </div>
      @if (files.working(); as w) {
        <div class="working" role="status">
          <progress [value]="w.share" max="1" [attr.aria-label]="w.words"></progress>
          <span>{{ w.words }} …</span>
          <button type="button" class="btn small" (click)="files.cancel()">Stop</button>
        </div>
      }
      @if (problem(); as words) {
        <p class="wrong" role="alert">{{ words }}</p>
      }
      @if (incoming(); as i) {
        <ls-incoming [incoming]="i" (taken)="take($event)" (left)="leave()" />
      }
      @if (report().length > 0) {
        <p>
          <button type="button" class="btn small" (click)="showsReport.set(true)">
            See the changes: {{ report().length }}
          </button>
        </p>
      }
      <h3>Backup</h3>
      <p class="quiet">{{ lastWords() }}</p>
      <div class="row">
        <button type="button" class="btn" [disabled]="files.working() !== null" (click)="backUp()">Back up now</button>
        <label class="check"
          ><input type="checkbox" [checked]="backup.now().weekly" (change)="backup.weekly(!backup.now().weekly)" /> back
          up every week</label
        >
      </div>
      <ls-own-folder />
      @if (aside.all().length > 0) {
        <h3>Set aside</h3>
        <p>{{ asideWords() }} could not be read and is kept apart. Nothing of it was lost or replaced.</p>
        <div class="row">
          <button type="button" class="btn" (click)="saveAside()">Save it as a file</button>
          <button type="button" class="btn plain" (click)="dropAside()">Delete it</button>
        </div>
      }
    </section>
    @if (showsReport()) {
      <p-dialog
        header="What the file changed"
        [visible]="true"
        closeAriaLabel="Close"
        [modal]="true"
        [style]="{ width: '38rem', maxWidth: '94vw' }"
        (visibleChange)="showsReport.set(false)"
      >
        @for (g of groups(); track g.kind) {
          <h3>{{ g.words }}</h3>
          <ul>
            @for (l of g.lines.slice(0, 200); track l.id) {
              <li class="cut">{{ l.name.slice(0, 120) }}</li>
            }
          </ul>
          @if (g.lines.length > 200) {
            <p class="quiet">and {{ g.lines.length - 200 }} more</p>
          }
        }
      </p-dialog>
    }
  `,
  styleUrl: './data-panel.component.css',
})
export class MyDataComponent {
  readonly files = inject(ShelfFiles);
  readonly backup = inject(BackupService);
  readonly aside = inject(AsideRepo);
  private readonly notices = inject(NoticesService);
  readonly problem = signal<string | null>(null);
  readonly incoming = signal<Incoming | null>(null);
  /** What the file that was taken last changed, to be gone through. */
  readonly report = signal<readonly MergeLine[]>([]);
  readonly showsReport = signal(false);
  readonly groups = computed(() => mergeGroups(this.report()));
  private readonly used = resource({ loader: () => this.backup.used() });
  readonly usedWords = computed(() => {
    const used = this.used.hasValue() ? this.used.value() : null;
    if (!used) return '';
    const size = sizeWords(used.bytes);
    return used.forGood ? ` (${size})` : ` (${size}). The browser may delete it when the disk is full, so back up`;
  });
  readonly lastWords = computed(() => {
    const { last } = this.backup.now();
    return last === null ? 'Never exported.' : `Last export: ${format(last, 'd MMM yyyy, HH:mm')}.`;
  });
  readonly asideWords = computed(() => count(this.aside.all().length, 'thing'));

  async save(): Promise<void> {
    await this.trying(
      'The shelf could not be read, so no file was exported. Nothing was changed. Try again.',
      async () => {
        saveBlob(await this.files.export(), `loop-shelf-${format(Date.now(), 'yyyy-MM-dd')}.json`);
        await this.backup.noteExport();
      },
    );
  }

  async backUp(): Promise<void> {
    await this.trying('The backup could not be saved. Nothing was changed. Try another folder.', async () => {
      this.notices.tell(await this.backup.save());
    });
  }

  constructor() {
    const handed = this.files.handed();
    if (handed) void this.read(handed);
  }

  async pick(files: FileList | null): Promise<void> {
    const file = files?.[0];
    if (file) await this.read(file);
  }

  private async read(file: Blob): Promise<void> {
    this.incoming.set(null);
    await this.trying('The file could not be opened. Your shelf is unchanged.', async () => {
      const read = await this.files.read(file);
      if (read.ok) this.incoming.set(read.value);
      else this.problem.set(`${read.problems[0].message} Your shelf is unchanged.`);
    });
  }

  async take(chosen: Chosen): Promise<void> {
    this.incoming.set(null);
    await this.trying(
      'The file did not fit. Your shelf is unchanged. Free some space, then bring it in again.',
      async () => {
        const taken = await this.files.take(chosen);
        if (taken.kind === 'full') this.problem.set(taken.words);
        if (taken.kind !== 'taken') return;
        this.report.set(taken.lines);
        this.notices.tell(taken.words, { label: 'Undo', run: () => void this.takeBack() });
      },
    );
  }

  leave(): void {
    this.incoming.set(null);
    this.files.forget();
  }

  saveAside(): void {
    saveText(this.aside.text(), fileName('loop-shelf set aside', 'json'), 'application/json');
  }

  async dropAside(): Promise<void> {
    const undo = await this.aside.drop();
    if (undo) this.notices.tell('What was set aside is deleted.', { label: 'Undo', run: () => void undo() });
  }

  private async takeBack(): Promise<void> {
    this.report.set([]);
    const words = await this.files.undo();
    if (words !== '') this.notices.tell(words);
  }

  /** Work that may fail or be stopped: either is said, and nothing was changed. */
  private async trying(failed: string, work: () => Promise<void>): Promise<void> {
    this.problem.set(null);
    try {
      await work();
    } catch (error) {
      this.problem.set(
        error instanceof Stopped
          ? 'Stopped. Your shelf is unchanged.'
          : error instanceof Unfetched
            ? UNFETCHED
            : failed,
      );
    }
    // It may be more or less that is kept now.
    this.used.reload();
  }
}
