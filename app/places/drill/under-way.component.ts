import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { switchMap } from 'rxjs';
import { RouterLink } from '@angular/router';
import { drillTempo } from '@core/drill';
import { DrillsRepo } from '../../storage/drills.repo';
import { PhrasesRepo } from '../../storage/phrases.repo';

/** The room without a phrase: the drills under way, or what to do first. */
@Component({
  selector: 'ls-under-way',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (missing()) {
      <h1>This phrase is no longer on the shelf</h1>
      <p>Its drill is gone too. Everything else is unchanged.</p>
    } @else if (underWay().length > 0) {
      <h1>Continue where you stopped</h1>
      @for (d of underWay(); track d.id) {
        <a class="big" [routerLink]="['/drill', d.id]"
          ><span class="cut">{{ d.name.slice(0, 100) }}</span>
          <span class="quiet mono">{{ d.at }}, goal {{ d.goal }}</span></a
        >
      }
    } @else {
      <h1>What do you want to drill?</h1>
      <p>Choose a phrase on the Shelf and press “Drill”. It starts slow and gets faster when you are clean.</p>
    }
    <a class="btn" routerLink="/shelf">Open the Shelf</a>
    <a class="btn" routerLink="/play">Play freely</a>
  `,
  styles: `
    :host {
      padding: 64px 40px;
      display: flex;
      flex-direction: column;
      gap: 16px;
      align-items: flex-start;
      max-width: 620px;
    }
    h1 {
      font-size: 26px;
    }
    .big {
      display: flex;
      justify-content: space-between;
      align-items: center;
      gap: 14px;
      width: 100%;
      min-height: 64px;
      padding: 8px 20px;
      border: 2px solid var(--line-strong);
      border-radius: var(--radius);
      color: var(--ink);
      font: 650 22px/1.1 var(--head);
      text-decoration: none;
    }
    .mono {
      font-size: 15px;
    }
  `,
})
export class UnderWayComponent {
  /** Whether a phrase was asked for that is gone. */
  readonly missing = input(false);
  private readonly drills = toSignal(inject(DrillsRepo).drills$, { initialValue: null });
  private readonly repo = inject(PhrasesRepo);
  private readonly phrases = toSignal(
    toObservable(this.drills).pipe(switchMap((drills) => this.repo.some((drills ?? []).map((d) => d.phrase)))),
    { initialValue: [] },
  );
  readonly underWay = computed(() => {
    const phrases = new Map(this.phrases().map((p) => [p.id, p]));
    return (this.drills() ?? []).flatMap((d) => {
      const phrase = phrases.get(d.phrase);
      return phrase ? [{ id: phrase.id, name: phrase.name, at: drillTempo(d), goal: d.plan.goal }] : [];
    });
  });
}
