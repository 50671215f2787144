import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { CdkDragHandle } from '@angular/cdk/drag-drop';
import { meterText, parseMeter, readTempo } from '@core/time';
import { chanceWords } from '@core/player';
import { cueProblems, feelText, inTime, SAFE, spotText } from '@core/show';
import { SHOW_LIMITS, type Cue, type Spot } from '@core/shelf';
import { SelectComponent } from '../../widgets/select.component';
import { ShowsStore, type Taken } from './shows.store';

/** The cells of a row, in their order. */
type Cell = 'name' | 'tempo' | 'meter' | 'feel' | 'bars' | 'spots' | 'note';
/** The fields of the first line, with their looks. The note stands beside what is filled. */
const CELLS: readonly { readonly cell: Cell; readonly label: string; readonly looks: string }[] = [
  { cell: 'name', label: 'Name', looks: 'name' },
  { cell: 'tempo', label: 'Tempo', looks: 'mono short' },
  { cell: 'meter', label: 'Meter', looks: 'mono short' },
  { cell: 'feel', label: 'Feel and subdivision', looks: '' },
  { cell: 'bars', label: 'Bars', looks: 'mono short' },
  { cell: 'spots', label: 'Spots', looks: 'mono spots' },
];
/** No groove: what a list holds for it. */
const NONE = '';

/** A cue of the show: a row of fields, and its spots as they are filled. */
@Component({
  selector: 'ls-cue-row',
  imports: [CdkDragHandle, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './cue-row.component.html',
  styleUrl: './cue-row.component.css',
})
export class CueRowComponent {
  readonly store = inject(ShowsStore);
  readonly cue = input.required<Cue>();
  readonly n = input.required<number>();
  readonly past = input(false);
  /** Enter in a cell: the same cell of the next row is wanted. */
  readonly down = output<string>();
  readonly moved = output<number>();
  readonly cells = CELLS;
  readonly wrong = signal<{ readonly cell: Cell; readonly words: string } | null>(null);
  readonly feel = computed(() => feelText(this.cue()));
  readonly spotsText = computed(() =>
    inTime(this.cue())
      .map((s) => spotText(s, this.cue()))
      .join(', '),
  );
  readonly grooves = computed(() => [
    { value: NONE, words: 'no groove' },
    ...this.store.grooves().map((g) => ({ value: g.id, words: g.name.slice(0, 80) })),
  ]);
  readonly groove = computed(() => {
    const own = this.cue().groove;
    return own !== null && this.store.grooves().some((g) => g.id === own) ? own : NONE;
  });
  readonly spots = computed(() => {
    const cue = this.cue();
    const bad = new Set(cueProblems(cue).flatMap((p) => (p.kind === 'meter' ? [] : [p.spot])));
    return inTime(cue).map((spot) => {
      const ready = this.store.readyOf(spot.id);
      const chance = ready?.chance ?? null;
      return {
        spot,
        where: spotText({ ...spot, hits: [], free: [], lands: 'any' }, cue).replace(/^fill /, ''),
        name: this.store.nameOf(spot.phrase),
        gone: spot.phrase !== null && this.store.nameOf(spot.phrase) === null && this.store.names().size > 0,
        bad: bad.has(spot.id),
        chance,
        safe: chance !== null && chance >= SAFE,
        words: chance === null ? '' : chanceWords(chance),
        on: this.store.spot()?.spot.id === spot.id,
      };
    });
  });
  /** What is wrong with what is kept, as after a cue was made shorter. */
  readonly problem = computed(() => {
    const [first] = cueProblems(this.cue());
    switch (first?.kind) {
      case undefined:
        return '';
      case 'meter':
        return 'This meter cannot be counted.';
      case 'beyond':
        return 'A spot is after the last bar. It stays, but is not played.';
      case 'overlap':
        return 'Two spots overlap. Only the first is played.';
    }
  });

  take(cell: Cell, text: string, field: HTMLInputElement): void {
    const said = this.put(cell, text.trim());
    this.wrong.set(said === null ? null : { cell, words: said });
    // What was taken is shown as it was read.
    if (said === null) setTimeout(() => (field.value = this.shown(cell)));
  }

  shown(cell: Cell): string {
    const cue = this.cue();
    switch (cell) {
      case 'name':
        return cue.name;
      case 'tempo':
        return String(cue.tempo);
      case 'meter':
        return cue.meter;
      case 'feel':
        return this.feel();
      case 'bars':
        return String(cue.bars);
      case 'spots':
        return this.spotsText();
      case 'note':
        return cue.note;
    }
  }

  private put(cell: Cell, text: string): Taken {
    const cue = this.cue();
    if (text === this.shown(cell)) return null;
    switch (cell) {
      case 'name':
        if (text === '') return 'A cue needs a name.';
        void this.store.setCue(cue.id, { name: text.slice(0, SHOW_LIMITS.letters) });
        return null;
      case 'tempo': {
        const { bpm, hint } = readTempo(text, cue.tempo);
        if (hint !== null) return hint;
        void this.store.setCue(cue.id, { tempo: bpm });
        return null;
      }
      case 'meter': {
        const meter = parseMeter(text);
        if (!meter) return 'Write a meter as 4/4, 6/8 or 7/8 2+2+3.';
        void this.store.setCue(cue.id, { meter: meterText(meter) });
        return null;
      }
      case 'feel':
        return this.store.setFeel(cue.id, text);
      case 'bars': {
        const bars = Number(text.replace('½', '.5').replace(',', '.'));
        if (!Number.isFinite(bars) || bars < 0.5 || bars > SHOW_LIMITS.bars || bars % 0.5 !== 0)
          return `Bars go from ½ to ${SHOW_LIMITS.bars}, halves among them.`;
        void this.store.setCue(cue.id, { bars });
        return null;
      }
      case 'spots':
        return this.store.setSpots(cue, text);
      case 'note':
        void this.store.setCue(cue.id, { note: text.slice(0, SHOW_LIMITS.note) });
        return null;
    }
  }

  choose(groove: string): void {
    void this.store.setCue(this.cue().id, { groove: groove === NONE ? null : groove });
  }

  key(event: KeyboardEvent, cell: Cell, field: HTMLInputElement): void {
    if (event.key === 'Escape') {
      field.value = this.shown(cell);
      this.wrong.set(null);
    }
    if (event.key === 'Enter') {
      this.take(cell, field.value, field);
      if (this.wrong() === null) this.down.emit(cell);
    }
    const step = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
    if (step !== 0 && event.altKey) {
      event.preventDefault();
      this.moved.emit(step);
    }
  }

  label(spot: Spot, name: string | null, words: string): string {
    const what = name ?? 'open';
    return `${spotText(spot, this.cue())}: ${what}${words === '' ? '' : `, ${words} ready`}`;
  }
}
