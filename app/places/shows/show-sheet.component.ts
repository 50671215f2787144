import { ChangeDetectionStrategy, Component, computed, inject, output, resource, signal } from '@angular/core';
import { dateWords } from '@core/plan';
import { barsWords, feelText, goodSpots, spotPattern, spotText, standsWords } from '@core/show';
import type { Cue } from '@core/shelf';
import { ChipsComponent } from '../../widgets/chips.component';
import { SheetFrameComponent, PAPER } from '../../widgets/sheet-frame.component';
import { RibbonComponent } from '../../drawings/ribbon/ribbon.component';
import { StaffComponent } from '../../drawings/staff/staff.component';
import { ShowsStore } from './shows.store';

type Form = 'lines' | 'pages';
type Drawing = 'ribbon' | 'staff';

/** The sheet to take along: one line a cue, or a page a cue with what is played in its spots. */
@Component({
  selector: 'ls-show-sheet',
  imports: [ChipsComponent, RibbonComponent, SheetFrameComponent, StaffComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-sheet-frame header="The show on paper" [ready]="played.hasValue()" (closed)="closed.emit()">
      <ng-container bar>
        <ls-chips label="What is on it" [chips]="forms" [chosen]="form()" (chose)="form.set($event)" />
        @if (form() === 'pages') {
          <ls-chips label="Drawn as" [chips]="drawings" [chosen]="drawing()" (chose)="drawing.set($event)" />
        }
      </ng-container>
      @if (store.show(); as show) {
        <h1>{{ show.name }}</h1>
        <p class="quiet">{{ head() }}</p>
        @if (form() === 'lines') {
          <table>
            <thead>
              <tr>
                <th>#</th>
                <th>Cue</th>
                <th>bpm</th>
                <th>Meter</th>
                <th>Feel</th>
                <th>Bars</th>
                <th>What to play</th>
              </tr>
            </thead>
            <tbody>
              @for (c of show.cues; track c.id) {
                <tr>
                  <td class="mono">{{ $index + 1 }}</td>
                  <td>
                    <strong>{{ c.name }}</strong>
                    @if (c.note) {
                      <br /><span class="quiet">{{ c.note }}</span>
                    }
                  </td>
                  <td class="mono big">{{ c.tempo }}</td>
                  <td class="mono">{{ c.meter }}</td>
                  <td>{{ feel(c) }}</td>
                  <td class="mono">{{ c.bars }}</td>
                  <td>
                    @for (s of spots(c); track s.id) {
                      <span class="spot"
                        ><span class="mono">{{ s.where }}</span> {{ s.name }}</span
                      >
                    }
                  </td>
                </tr>
              }
            </tbody>
          </table>
        } @else {
          @for (c of show.cues; track c.id) {
            <section class="page">
              <h2>
                {{ $index + 1 }}. {{ c.name }} <span class="mono">{{ c.tempo }}</span>
              </h2>
              <p class="quiet">{{ line(c) }}</p>
              @for (s of spots(c); track s.id) {
                <div class="drawn">
                  <p>
                    <span class="mono">{{ s.where }}</span> <strong>{{ s.name }}</strong> {{ s.way }}
                  </p>
                  @if (s.pattern; as p) {
                    @if (drawing() === 'ribbon') {
                      <ls-ribbon [pattern]="p" [width]="paper" [silent]="true" />
                    } @else {
                      <ls-staff [pattern]="p" [width]="paper" />
                    }
                  }
                </div>
              } @empty {
                <p class="quiet">No spots: keep time.</p>
              }
            </section>
          }
        }
      }
    </ls-sheet-frame>
  `,
  styles: `
    h1 {
      font-size: 24px;
    }
    table {
      width: 100%;
      margin-top: 14px;
      border-collapse: collapse;
      font-size: 12.5px;
    }
    th,
    td {
      padding: 6px 8px 6px 0;
      border-bottom: 1px solid var(--line-strong);
      text-align: left;
      vertical-align: top;
    }
    th {
      font-weight: 500;
      color: var(--quiet);
    }
    tr {
      break-inside: avoid;
    }
    .big {
      font-size: 15px;
      font-weight: 650;
    }
    .spot {
      display: block;
    }
    .mono + strong,
    .spot .mono {
      margin-right: 8px;
    }
    .drawn .mono {
      margin-right: 8px;
    }
    .page {
      margin-top: 22px;
      break-before: page;
    }
    .page:first-of-type {
      break-before: auto;
    }
    .page h2 {
      font-size: 22px;
    }
    .drawn {
      margin-top: 16px;
      break-inside: avoid;
    }
  `,
})
export class ShowSheetComponent {
  readonly store = inject(ShowsStore);
  readonly closed = output();
  readonly paper = PAPER;
  readonly form = signal<Form>('lines');
  readonly drawing = signal<Drawing>('ribbon');
  readonly forms = [
    { value: 'lines' as const, words: 'one line a cue' },
    { value: 'pages' as const, words: 'a page a cue' },
  ];
  readonly drawings = [
    { value: 'ribbon' as const, words: 'ribbon' },
    { value: 'staff' as const, words: 'staff' },
  ];
  readonly played = resource({ params: () => this.store.show(), loader: () => this.store.played() });
  readonly head = computed(() => {
    const show = this.store.show();
    if (!show) return '';
    return [show.place, show.day === null ? '' : dateWords(show.day, true), `${show.cues.length} cues`]
      .filter((w) => w !== '')
      .join(' · ');
  });

  feel(cue: Cue): string {
    return feelText(cue);
  }

  line(cue: Cue): string {
    return [cue.meter, feelText(cue), barsWords(cue.bars), cue.note].filter((w) => w !== '').join(' · ');
  }

  spots(cue: Cue) {
    const found = this.played.hasValue() ? this.played.value() : null;
    return goodSpots(cue).map((spot) => {
      const name = found?.phrases.find((p) => p.id === spot.phrase)?.name ?? null;
      const fit = this.store
        .answer()
        ?.choices.find((c) => c.spot === spot.id)
        ?.fits.find((f) => f.phrase === spot.phrase);
      const way = fit ? standsWords(fit.way) : '';
      const pattern = spot.phrase === null ? undefined : found?.patterns.get(spot.phrase);
      return {
        id: spot.id,
        where: spotText(spot, cue),
        name: name ?? 'open',
        way: way === '' ? '' : `(${way})`,
        pattern: pattern && fit ? spotPattern(cue, spot, { pattern, way: fit.way }) : (pattern ?? null),
      };
    });
  }
}
