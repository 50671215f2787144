import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { format } from 'date-fns';
import { count } from '@core/base';
import type { Settings } from '@core/formats';
import { barTicks, GRID, meter } from '@core/time';
import { patternOfText, type Pattern } from '@core/pattern';
import { CLICK_KINDS } from '@core/playback';
import { rendition } from '@core/rendition';
import { LEVELS, parseStrokeText, syllableKey, syllableOf, VOICE, VOICES, type Level, type Voice } from '@core/stroke';
import { checkSound, type SoundCheck } from '../audio/sound-check';
import { SettingsRepo } from '../data/settings.repo';
import { ShelfFiles, type Incoming } from '../data/shelf-files.service';
import { NoticesService } from '../shell/notices.service';
import { ChipsComponent } from '../ui/chips.component';
import type { Choice } from '../ui/choice';

const CHECK_BARS = 256;
/** Each click in another swing, through three tempos. */
const CHECKS = CLICK_KINDS.map((click, i) => ({ click, swing: 0.5 + i * 0.05, tempos: [261.7, 384, 299.9 - i] }));

/** My data, how I count and sing, the light, and whether the sound can be trusted. */
@Component({
  selector: 'ls-data-panel',
  imports: [ChipsComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './data-panel.component.html',
  styleUrl: './data-panel.component.css',
})
export class DataPanelComponent {
  readonly settings = inject(SettingsRepo);
  private readonly files = inject(ShelfFiles);
  private readonly notices = inject(NoticesService);
  readonly busy = signal<string | null>(null);
  readonly problem = signal<string | null>(null);
  readonly incoming = signal<Incoming | null>(null);
  readonly voices = VOICES.map((voice) => ({ voice, name: VOICE[voice].name }));
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

  async save(): Promise<void> {
    this.busy.set('Writing the file …');
    try {
      const url = URL.createObjectURL(new Blob([await this.files.text()], { type: 'application/json' }));
      const link = Object.assign(document.createElement('a'), {
        href: url,
        download: `loop-shelf-${format(Date.now(), 'yyyy-MM-dd')}.json`,
      });
      link.click();
      setTimeout(() => URL.revokeObjectURL(url), 10_000);
    } catch {
      this.problem.set(
        'The shelf could not be read from the browser’s storage, so no file was written. Nothing was changed.',
      );
    } finally {
      this.busy.set(null);
    }
  }

  async pick(files: FileList | null): Promise<void> {
    const file = files?.[0];
    if (!file) return;
    this.problem.set(null);
    this.incoming.set(null);
    this.busy.set(`Reading “${file.name.slice(0, 60)}” …`);
    try {
      const read = await this.files.read(file.size, () => file.text());
      if (read.ok) this.incoming.set(read.value);
      else this.problem.set(`${read.problems[0].message} Your shelf is as it was.`);
    } catch {
      this.problem.set('The file could not be opened. Your shelf is as it was.');
    } finally {
      this.busy.set(null);
    }
  }

  async take(incoming: Incoming): Promise<void> {
    this.incoming.set(null);
    this.busy.set('Putting it on the shelf …');
    const undo = await this.files.take(incoming.file);
    this.busy.set(null);
    if (undo) {
      this.notices.tell(
        `${count(incoming.file.phrases.length, 'phrase')} and ${count(incoming.file.attempts.length, 'log entry', 'log entries')} are on the shelf.`,
        {
          label: 'Take back',
          run: () => void undo(),
        },
      );
    }
  }

  wordsOf(incoming: Incoming): string {
    const { fresh, replaced, file } = incoming;
    const parts = [
      count(fresh, 'new phrase'),
      ...(replaced > 0 ? [`${count(replaced, 'phrase')} you have already, replaced by the file’s`] : []),
    ];
    return `${parts.join(', ')}; ${count(file.attempts.length, 'log entry', 'log entries')}.`;
  }

  /**
   * Renders 256 bars of a five-slot cell over the bar with every click, swung and through tempo changes, and says how
   * far the worst sound is off.
   */
  async checkSound(): Promise<void> {
    this.checks.set([]);
    this.busy.set('Rendering …');
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
      this.problem.set('This browser could not render the sound check.');
    } finally {
      this.busy.set(null);
    }
  }
}
