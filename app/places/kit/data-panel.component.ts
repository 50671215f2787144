import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { count } from '@core/base';
import type { Settings } from '@core/formats/shelf-file';
import { barTicks, GRID, meter } from '@core/time';
import { patternOfText, type Pattern } from '@core/pattern';
import { CLICK_KINDS } from '@core/playback';
import { rendition } from '@core/rendition';
import { LEVELS, parseStrokeText, syllableKey, syllableOf, type Level, type Voice } from '@core/stroke';
import { checkSound, type SoundCheck } from '../../sound/sound-check';
import { KitsRepo } from '../../storage/kits.repo';
import { SettingsRepo } from '../../storage/settings.repo';
import { ChipsComponent } from '../../widgets/chips.component';
import type { Choice } from '../../widgets/choice';
import { KeptRecordsComponent } from './kept-records.component';
import { MyDataComponent } from './my-data.component';

const CHECK_BARS = 256;
/** Each click in another swing, through three tempos. */
const CHECKS = CLICK_KINDS.map((click, i) => ({ click, swing: 0.5 + i * 0.05, tempos: [261.7, 384, 299.9 - i] }));

/** My data, how I count and sing, the light, and whether the sound can be trusted. */
@Component({
  selector: 'ls-data-panel',
  imports: [ChipsComponent, KeptRecordsComponent, MyDataComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './data-panel.component.html',
  styleUrl: './data-panel.component.css',
})
export class DataPanelComponent {
  readonly settings = inject(SettingsRepo);
  readonly busy = signal<string | null>(null);
  readonly problem = signal<string | null>(null);
  private readonly kits = inject(KitsRepo);
  readonly voices = computed(() => this.kits.voices().map((voice) => ({ voice, name: this.kits.nameOf(voice) })));
  readonly levels = LEVELS;
  readonly triplets: readonly Choice<Settings['triplets']>[] = [
    { value: 'trip-let', words: '1 trip let' },
    { value: 'and-a', words: '1 & a' },
  ];
  readonly sextuplets: readonly Choice<Settings['sextuplets']>[] = [
    { value: 'trip-let', words: '1 trip let & trip let' },
    { value: 'ta-la', words: '1 ta la & ta la' },
  ];
  readonly themes: readonly Choice<Settings['theme']>[] = [
    { value: 'light', words: 'light' },
    { value: 'dark', words: 'dark' },
  ];
  readonly rooms: readonly Choice<NonNullable<Settings['room']>>[] = [
    { value: 'dark', words: 'always dark' },
    { value: 'same', words: 'like the workbench' },
  ];
  readonly checks = signal<readonly (SoundCheck & { readonly words: string })[]>([]);

  /** The words of ours that are marked nowhere any more. */
  readonly many = computed(() => this.settings.now().known?.length ?? 0);
  readonly knownWords = computed(() =>
    this.many() === 0 ? 'Underlined words explain themselves.' : `You know ${count(this.many(), 'word')} of ours.`,
  );

  change(part: Partial<Settings>): void {
    void this.settings.change(part);
  }

  syllable(voice: Voice, level: Level): string {
    return syllableOf(voice, level, this.settings.sung());
  }

  /** A syllable of one's own; an empty field is ours again. Gives back what stands there now. */
  sing(voice: Voice, level: Level, typed: string): string {
    const text = typed.trim().slice(0, 12);
    const others = Object.fromEntries(
      Object.entries(this.settings.sung()).filter(([key]) => key !== syllableKey(voice, level)),
    );
    const sung = text === '' ? others : { ...others, [syllableKey(voice, level)]: text };
    this.change({ sung });
    return syllableOf(voice, level, sung);
  }

  /**
   * Renders 256 bars of a five-slot cell over the bar with every click, swung and through tempo changes, and says how
   * far the worst sound is off.
   */
  async checkSound(): Promise<void> {
    this.checks.set([]);
    this.busy.set('Checking …');
    const seven = meter(7, 8);
    const read = parseStrokeText('R! l l R K');
    const cell = patternOfText(read.ok ? read.value : [], seven, GRID.sixteenths);
    try {
      for (const { click, swing, tempos } of CHECKS) {
        const pattern: Pattern = { ...cell, feel: { kind: 'swung', on: '16ths', ratio: swing } };
        const found = await checkSound(
          rendition({ phrase: pattern, click }).program,
          CHECK_BARS * barTicks(seven),
          tempos,
        );
        this.checks.update((all) => [...all, { ...found, words: `click ${click}, swing ${swing.toFixed(2)}` }]);
      }
    } catch {
      this.problem.set('This browser cannot run the sound check.');
    } finally {
      this.busy.set(null);
    }
  }
}
