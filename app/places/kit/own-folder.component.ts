import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { momentWords } from '../../common/moment-words';
import { OwnFolder, type FolderLook } from '../../storage/files/own-folder.service';
import { WithheldComponent } from '../../widgets/withheld.component';

/** A folder of the player's own: chosen once, after that the file in it follows the shelf. */
@Component({
  selector: 'ls-own-folder',
  imports: [WithheldComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>A folder of my own</h3>
    <ls-withheld what="folder" />
    @if (!folder.can) {
      <p class="quiet">This browser cannot write into a folder. Export the shelf now and then instead.</p>
    } @else if (looked(); as l) {
      @switch (l.kind) {
        @case ('empty') {
          <p role="status">
            There is no shelf in it yet{{ l.others > 0 ? ', only other files: they are left alone' : '' }}.
          </p>
          <div class="row">
            <button type="button" class="btn primary" (click)="use()">Use this folder</button>
            <button type="button" class="btn" (click)="looked.set(null)">Not now</button>
          </div>
        }
        @case ('shelf') {
          <p role="status">
            <strong>There is a shelf in it.</strong> Is it yours? Merged with this one it would change:
          </p>
          <ul>
            @for (g of l.incoming.groups; track g.kind) {
              <li>{{ g.words }}</li>
            }
            @if (l.incoming.tries > 0) {
              <li>{{ l.incoming.tries }} {{ l.incoming.tries === 1 ? 'try' : 'tries' }} of the log</li>
            }
            @if (l.incoming.groups.length === 0 && l.incoming.tries === 0) {
              <li>no phrase: they are all here</li>
            }
            @if (l.copies > 0) {
              <li>
                {{ l.copies === 1 ? 'a copy' : l.copies + ' copies' }} that a synchronising service made, merged as well
              </li>
            }
          </ul>
          <div class="row">
            <button type="button" class="btn primary" (click)="use()">Merge and use it</button>
            <button type="button" class="btn" (click)="looked.set(null)">Not now</button>
          </div>
        }
        @case ('refused') {
          <p class="wrong" role="alert">{{ l.words }}</p>
          <button type="button" class="btn" (click)="choose()">Choose a folder</button>
        }
      }
    } @else if (folder.name(); as name) {
      <p>
        The file <span class="mono">loop-shelf.json</span> in <strong>{{ name.slice(0, 80) }}</strong> follows the
        shelf, with seven days beside it. {{ when() }}
      </p>
      @if (folder.news(); as words) {
        <p class="quiet" role="status">{{ words }}</p>
      }
      <div class="row">
        <button type="button" class="btn" [disabled]="folder.busy()" (click)="folder.sync(true)">Write it now</button>
        <button type="button" class="btn plain" (click)="choose()">Choose another</button>
        <button type="button" class="btn plain" (click)="folder.leave()">Stop following</button>
      </div>
    } @else {
      <p class="quiet">
        Choose one once: the shelf is written there within a minute of each change. Put it where your devices
        synchronise, and they are merged.
      </p>
      <div class="row">
        <button type="button" class="btn" [disabled]="looking()" (click)="choose()">Choose a folder</button>
      </div>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 8px;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
    ul {
      margin: 0;
      padding-left: 18px;
    }
    p {
      overflow-wrap: anywhere;
    }
  `,
})
export class OwnFolderComponent {
  readonly folder = inject(OwnFolder);
  readonly looked = signal<FolderLook | null>(null);
  readonly looking = signal(false);
  readonly when = computed(() => {
    if (this.folder.busy()) return 'Writing …';
    const at = this.folder.at();
    return at === null ? 'Not written yet.' : `Written ${momentWords(at)}.`;
  });

  async choose(): Promise<void> {
    this.looking.set(true);
    this.looked.set(await this.folder.choose());
    this.looking.set(false);
  }

  async use(): Promise<void> {
    this.looked.set(null);
    await this.folder.use();
  }
}
