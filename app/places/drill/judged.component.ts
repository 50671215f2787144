import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { USUAL_SCHOOLS, type Schools } from '@core/time';
import { LIMB_WORDS, VOICE } from '@core/stroke';
import { placeWords, type Pattern } from '@core/pattern';
import { BY_THE_MINUTE, findingWords, lateWords, LIMITS, timingWords } from '@core/take';
import { LateScaleComponent, type Timing } from './late-scale.component';
import type { Judged } from '../../playing/take.recorder';

const VERDICT_WORDS = { clean: 'Clean', close: 'Almost', loose: 'Messy' } as const;

/** What the last try said: the verdict, the one thing to fix first, and behind a press everything that was measured. */
@Component({
  selector: 'ls-judged',
  imports: [LateScaleComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let j = judged();
    <p [class]="'verdict ' + j.verdict">
      {{ words[j.verdict] }}
      @if (j.loops; as l) {
        <span class="quiet">{{ l.clean }} of {{ l.of }} {{ l.of === 1 ? 'loop' : 'loops' }} clean</span>
      }
    </p>
    <p class="fix">{{ j.fix ? fixWords(j.fix.finding) : 'Nothing to fix first.' }}</p>
    @for (b of j.uncounted; track b) {
      <p class="quiet">{{ b }}</p>
    }
    @if (j.reading.missed + j.reading.extra > 0) {
      <p class="quiet">{{ j.reading.missed }} missed, {{ j.reading.extra }} extra.</p>
    }
    <ls-late-scale [timings]="timings()" [most]="most()" />
    <div class="row">
      @if (j.fix?.index !== null && j.fix) {
        <button type="button" class="btn" (click)="isolate.emit()">Drill this spot <kbd>I</kbd></button>
      }
      <button type="button" class="btn" [attr.aria-expanded]="open()" (click)="open.set(!open())">
        {{ open() ? 'Less' : 'Details' }}
      </button>
    </div>
    @if (open()) {
      <table>
        <tbody>
          @for (d of details(); track d.what) {
            <tr>
              <th scope="row">{{ d.what }}</th>
              <td>{{ d.words }}</td>
            </tr>
          }
        </tbody>
      </table>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 6px;
      max-height: 100%;
      overflow: auto;
    }
    .verdict {
      font: 700 30px/1 var(--head);
    }
    .verdict .quiet {
      margin-left: 8px;
      font: 500 14px/1.2 var(--text);
    }
    .clean {
      color: var(--good);
    }
    .close {
      color: var(--warn);
    }
    .loose {
      color: var(--mark);
    }
    .fix {
      font-size: 17px;
      font-weight: 600;
      line-height: 1.25;
    }
    .row {
      display: flex;
      gap: 8px;
    }
    table {
      border-collapse: collapse;
      font-size: 13px;
    }
    th {
      text-align: left;
      font-weight: 500;
      padding: 2px 10px 2px 0;
    }
    td {
      padding: 2px 8px 2px 0;
    }
  `,
})
export class JudgedComponent {
  readonly judged = input.required<Judged>();
  readonly pattern = input.required<Pattern>();
  readonly schools = input<Schools>(USUAL_SCHOOLS);
  readonly isolate = output();
  readonly open = signal(false);
  readonly words = VERDICT_WORDS;
  readonly fixWords = findingWords;
  /** Of every limb, and of all together where that are more than one. */
  readonly timings = computed((): readonly Timing[] => {
    const { byLimb, mean, spread } = this.judged().reading;
    const limbs = byLimb.map((l) => ({ name: LIMB_WORDS[l.limb], mean: l.mean, spread: l.spread }));
    return limbs.length > 1 ? [{ name: 'all', mean, spread }, ...limbs] : limbs;
  });
  /** What the scale marks is what the verdict would not let pass. */
  readonly most = computed(() => LIMITS.mean);
  readonly details = computed(() => {
    const { reading } = this.judged();
    return [
      // A foot has one piece, and is on the scale.
      ...reading.byVoice
        .filter((v) => VOICE[v.voice].family !== 'foot')
        .map((v) => ({ what: VOICE[v.voice].name, words: timingWords(v.mean, v.spread) })),
      ...this.worst(),
      { what: 'tempo', words: driftWords(reading.drift, reading.seconds) },
      ...(reading.leftRight === null ? [] : [{ what: 'louder hand', words: louderWords(reading.leftRight) }]),
      ...(reading.accentGhost === null
        ? []
        : [
            {
              what: 'accents',
              words: `${reading.accentGhost.toFixed(1)}× as loud as ghosts, aim for ${(reading.meantRatio ?? 1).toFixed(1)}×`,
            },
          ]),
      ...(reading.silence === null ? [] : [{ what: 'without the click', words: lateWords(reading.silence) }]),
    ];
  });

  /** The places that were missed most or lie furthest off. */
  private worst(): readonly { readonly what: string; readonly words: string }[] {
    const pattern = this.pattern();
    return [...this.judged().reading.byPlace]
      .sort((a, b) => b.missed - a.missed || Math.abs(b.mean) - Math.abs(a.mean))
      .slice(0, WORST)
      .flatMap((p) => {
        const s = pattern.strokes[p.index];
        if (!s) return [];
        const what = `${VOICE[s.voice].name} on ${placeWords(pattern, s.at, this.schools())}`;
        return [{ what, words: p.missed > 0 ? `${p.missed} missed` : timingWords(p.mean, p.spread) }];
      });
  }
}

/** So many places are named. */
const WORST = 4;

function driftWords(ms: number, seconds: number): string {
  const isShort = seconds < BY_THE_MINUTE;
  const off = Math.round(Math.abs(isShort ? (ms * seconds) / 60 : ms));
  if (off === 0) return 'steady';
  return isShort
    ? `${off} ms ${ms > 0 ? 'late' : 'early'} by the end`
    : `${off} ms ${ms > 0 ? 'slower' : 'faster'} each minute`;
}

function louderWords(by: number): string {
  const off = Math.round(Math.abs(by));
  return off === 0 ? 'both alike' : `${by > 0 ? 'right' : 'left'}, by ${off}`;
}
