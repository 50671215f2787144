import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { USUAL_SCHOOLS, type Schools } from '@core/time';
import { LIMB_WORDS, VOICE } from '@core/stroke';
import { placeWords, type Pattern } from '@core/pattern';
import { findingWords } from '@core/take';
import type { Judged } from './take.recorder';

const VERDICT_WORDS = { clean: 'Clean', close: 'Close', loose: 'Loose' } as const;

/** What the last try said: the verdict, the one thing to fix first, and behind a press everything that was measured. */
@Component({
  selector: 'ls-judged',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let j = judged();
    <p [class]="'verdict ' + j.verdict">{{ words[j.verdict] }}</p>
    <p class="fix">{{ j.fix ? fixWords(j.fix.finding) : 'Nothing to fix first.' }}</p>
    @for (b of j.uncounted; track b) {
      <p class="quiet">{{ b }}</p>
    }
    <p class="quiet">
      @if (j.loops; as l) {
        {{ l.clean }} of {{ l.of }} {{ l.of === 1 ? 'loop' : 'loops' }} clean ·
      }
      {{ signed(j.reading.mean) }} ms, ± {{ j.reading.spread.toFixed(0) }} ms
      @if (j.reading.missed + j.reading.extra > 0) {
        · {{ j.reading.missed }} missed, {{ j.reading.extra }} too many
      }
    </p>
    <div class="row">
      @if (j.fix?.index !== null && j.fix) {
        <button type="button" class="btn" (click)="isolate.emit()">Isolate it <kbd>I</kbd></button>
      }
      <button type="button" class="btn" [attr.aria-expanded]="open()" (click)="open.set(!open())">
        {{ open() ? 'Less' : 'All of it' }}
      </button>
    </div>
    @if (open()) {
      <table>
        <tbody>
          @for (l of j.reading.byLimb; track l.limb) {
            <tr>
              <th scope="row">{{ limbs[l.limb] }}</th>
              <td class="mono">{{ signed(l.mean) }}</td>
              <td class="mono">± {{ l.spread.toFixed(0) }}</td>
            </tr>
          }
          @for (v of handVoices(); track v.voice) {
            <tr>
              <th scope="row">{{ voices[v.voice].name }}</th>
              <td class="mono">{{ signed(v.mean) }}</td>
              <td class="mono">± {{ v.spread.toFixed(0) }}</td>
            </tr>
          }
          @for (p of worst(); track p.index) {
            <tr>
              <th scope="row">{{ p.words }}</th>
              <td class="mono">{{ signed(p.mean) }}</td>
              <td class="mono">{{ p.missed > 0 ? p.missed + ' missed' : '± ' + p.spread.toFixed(0) }}</td>
            </tr>
          }
          <tr>
            <th scope="row">drift, ms a minute</th>
            <td class="mono" colspan="2">{{ signed(j.reading.drift) }}</td>
          </tr>
          @if (j.reading.leftRight !== null) {
            <tr>
              <th scope="row">right louder than left</th>
              <td class="mono" colspan="2">{{ signed(j.reading.leftRight) }}</td>
            </tr>
          }
          @if (j.reading.accentGhost !== null) {
            <tr>
              <th scope="row">loud strokes to soft</th>
              <td class="mono" colspan="2">
                {{ j.reading.accentGhost.toFixed(1) }} : 1, meant {{ (j.reading.meantRatio ?? 1).toFixed(1) }}
              </td>
            </tr>
          }
          @if (j.reading.silence !== null) {
            <tr>
              <th scope="row">while the click was silent</th>
              <td class="mono" colspan="2">{{ signed(j.reading.silence) }} ms</td>
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
  readonly limbs = LIMB_WORDS;
  readonly voices = VOICE;
  /** A foot has one voice, and has said it. */
  readonly handVoices = computed(() => this.judged().reading.byVoice.filter((v) => VOICE[v.voice].family !== 'foot'));
  /** The places that lie furthest off. */
  readonly worst = computed(() => {
    const pattern = this.pattern();
    return [...this.judged().reading.byPlace]
      .sort((a, b) => b.missed - a.missed || Math.abs(b.mean) - Math.abs(a.mean))
      .slice(0, 4)
      .flatMap((p) => {
        const s = pattern.strokes[p.index];
        return s ? [{ ...p, words: `${VOICE[s.voice].name} on ${placeWords(pattern, s.at, this.schools())}` }] : [];
      });
  });

  signed(n: number): string {
    const whole = Math.round(n);
    return whole > 0 ? `+${whole}` : String(whole);
  }
}
