import { ChangeDetectionStrategy, Component, computed, inject, OnDestroy } from '@angular/core';
import { RouterLink } from '@angular/router';
import { firstWords } from '@core/map';
import { KinStore } from './kin.store';
import { PreviewStore } from './preview.store';

/** So many of what was made from a phrase are named. */
const NAMED = 3;

/** Where the phrase comes from and what was made from it, each a way there; what changed above it can be taken over. */
@Component({
  selector: 'ls-kin-line',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (kin.parent(); as p) {
      <p>
        <span class="quiet">from</span>
        <a class="cut" [routerLink]="['/bench', p.id]">{{ p.name.slice(0, 80) }}</a>
        <span class="quiet change">{{ kin.change() }}</span>
        @if (kin.followed(); as f) {
          <span role="status">It has changed since.</span>
          <button
            type="button"
            class="btn small"
            (mouseenter)="preview.show({ pattern: f.pattern, words: 'with the change' })"
            (mouseleave)="preview.show(null)"
            (focus)="preview.show({ pattern: f.pattern, words: 'with the change' })"
            (blur)="preview.show(null)"
            (click)="take()"
          >
            Take the change over
          </button>
        }
      </p>
    }
    @if (firsts(); as words) {
      <p class="quiet">{{ words }} <a routerLink="/shelf" [queryParams]="{ view: 'map' }">The map</a></p>
    }
    @if (children().length > 0) {
      <p>
        <span class="quiet">made from it</span>
        @for (c of children(); track c.id) {
          <a class="cut" [routerLink]="['/bench', c.id]" [attr.title]="c.change">{{ c.name.slice(0, 80) }}</a>
        }
        @if (more() > 0) {
          <span class="quiet">and {{ more() }} more</span>
        }
      </p>
    }
  `,
  styles: `
    :host {
      display: block;
      font-size: 13px;
    }
    p {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 2px 10px;
      margin: 0 0 6px;
    }
    a {
      max-width: 16rem;
      color: inherit;
      line-height: 24px;
    }
    .change {
      overflow: hidden;
      max-width: 28rem;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
})
export class KinLineComponent implements OnDestroy {
  readonly kin = inject(KinStore);
  readonly preview = inject(PreviewStore);
  readonly children = computed(() => this.kin.children().slice(0, NAMED));
  readonly firsts = computed(() => firstWords(this.kin.firsts()));
  readonly more = computed(() => this.kin.children().length - NAMED);

  take(): void {
    this.preview.show(null);
    this.kin.follow();
  }

  ngOnDestroy(): void {
    this.preview.show(null);
  }
}
