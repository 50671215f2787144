import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { format } from 'date-fns';
import { count } from '@core/base';
import type { Settings } from '@core/formats';
import { barTicks, GRID, meter } from '@core/time';
import { patternOfText } from '@core/pattern';
import { programOf } from '@core/playback';
import { LEVELS, parseStrokeText, syllableKey, syllableOf, VOICE, VOICES, type Level, type Voice } from '@core/stroke';
import { checkSound, type SoundCheck } from '../audio/sound-check';
import { SettingsRepo } from '../data/settings.repo';
import { ShelfFiles, type Incoming } from '../data/shelf-files.service';
import { currentShelf } from '../data/which-shelf';
import { NoticesService } from '../shell/notices.service';

const CHECK_BARS = 64;
const CHECK_TEMPOS = [61.7, 90, 104, 199.9];

/** The Kit: so far my data, how I count, and whether the sound can be trusted. */
@Component({
  selector: 'ls-kit',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './kit.component.html',
  styleUrl: './kit.component.css',
})
export class KitComponent {
  readonly settings = inject(SettingsRepo);
  private readonly files = inject(ShelfFiles);
  private readonly notices = inject(NoticesService);
  readonly demo = currentShelf() === 'demo';
  readonly busy = signal<string | null>(null);
  readonly problem = signal<string | null>(null);
  readonly incoming = signal<Incoming | null>(null);
  readonly voices = VOICES.map((voice) => ({ voice, name: VOICE[voice].name }));
  readonly levels = LEVELS;
  readonly checks = signal<readonly (SoundCheck & { readonly bpm: number })[]>([]);

  change(part: Partial<Settings>): void {
    void this.settings.change(part);
  }

  syllable(voice: Voice, level: Level): string {
    return syllableOf(voice, level, this.settings.sung());
  }

  /** A syllable of one's own; an empty field is ours again. */
  sing(voice: Voice, level: Level, event: Event): void {
    const text = event.target instanceof HTMLInputElement ? event.target.value.trim().slice(0, 12) : '';
    const others = Object.fromEntries(Object.entries(this.settings.sung()).filter(([key]) => key !== syllableKey(voice, level)));
    this.change({ sung: text === '' ? others : { ...others, [syllableKey(voice, level)]: text } });
    if (event.target instanceof HTMLInputElement) event.target.value = syllableOf(voice, level, this.settings.sung());
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
      this.problem.set('The shelf could not be read from the browser’s storage, so no file was written. Nothing was changed.');
    } finally {
      this.busy.set(null);
    }
  }

  async pick(event: Event): Promise<void> {
    const input = event.target;
    if (!(input instanceof HTMLInputElement)) return;
    const file = input.files?.[0];
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
      input.value = '';
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

  /** Renders 64 bars of a five-slot cell over the bar at several tempos, and says how far the worst sound is off. */
  async checkSound(): Promise<void> {
    this.checks.set([]);
    this.busy.set('Rendering …');
    const seven = meter(7, 8);
    const read = parseStrokeText('R! l l R K');
    const program = programOf(patternOfText(read.ok ? read.value : [], seven, GRID.sixteenths), { click: 'beats', countInBars: 0 });
    try {
      for (const bpm of CHECK_TEMPOS) {
        const found = await checkSound(program, CHECK_BARS * barTicks(seven), bpm);
        this.checks.update((all) => [...all, { ...found, bpm }]);
      }
    } catch {
      this.problem.set('This browser could not render the sound check.');
    } finally {
      this.busy.set(null);
    }
  }
}
