import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { countAt } from '@core/time';
import { countingOf } from '@core/pattern';
import { Transport } from '../../sound/transport.service';
import { SettingsRepo } from '../../storage/settings.repo';
import { HitSources } from '../../hits/sources.service';
import { CalibrateComponent } from './calibrate.component';
import { DrillStore } from './drill.store';
import { JudgedComponent } from './judged.component';
import { RoomChoices } from './room-choices.store';
import { SourceWatch } from './source-watch.store';
import { TakeRecorder } from '../../playing/take.recorder';
import { TryJudge } from './try.judge';

/** The count, the two big keys, and what the last try said. */
@Component({
  selector: 'ls-rung-keys',
  imports: [CalibrateComponent, JudgedComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './rung-keys.component.html',
  styleUrl: './rung-keys.component.css',
})
export class RungKeysComponent {
  readonly store = inject(DrillStore);
  readonly watch = inject(SourceWatch);
  readonly tries = inject(TryJudge);
  readonly settings = inject(SettingsRepo);
  readonly transport = inject(Transport);
  private readonly choices = inject(RoomChoices);
  private readonly sources = inject(HitSources);
  readonly recorder = inject(TakeRecorder);
  /** The two big keys. */
  readonly good = output();
  readonly bad = output();
  readonly calibrating = signal(false);
  readonly drill = this.store.drill;
  readonly source = computed(() => {
    const kind = this.choices.source();
    return kind === null ? null : this.sources.of(kind);
  });
  readonly count = computed(() => {
    const tick = this.transport.position();
    const pattern = this.store.rendition()?.pattern;
    if (tick === null || !pattern) return null;
    const at = tick < 0 ? tick : tick % this.store.loop();
    const { bar, beat } = countAt(Math.floor(at), countingOf(pattern, this.settings.schools()));
    return { beat, bar: tick < 0 ? 'count-in' : `bar ${bar}` };
  });
}
