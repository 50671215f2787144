import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, viewChild } from '@angular/core';
import { scaleBand, scaleLinear } from 'd3-scale';
import { chanceWords } from '@core/player';
import { inTime, SAFE, spotText } from '@core/show';
import { followWidth } from '../../common/follow-size';
import { fileName, saveCsv, saveSvg } from '../../widgets/save-svg';
import { ShowsStore } from './shows.store';

const ROOM = { left: 46, right: 8, top: 12, bottom: 40, height: 176 };
/** Letters of a cue's name for so many px of room. */
const LETTER = 6.6;

/**
 * How ready the show is: its cues across, the chance that each spot is ready up, and how far the minutes until the
 * night would lift it.
 */
@Component({
  selector: 'ls-ready-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (drawn(); as d) {
      <div class="wide">
        <svg #svg [attr.width]="d.width" [attr.height]="room.height" role="img" [attr.aria-label]="words()">
          <rect
            class="safe"
            [attr.x]="room.left"
            [attr.y]="d.y(1)"
            [attr.width]="d.inner"
            [attr.height]="d.safe - d.y(1)"
          />
          @for (t of ticks; track t) {
            <line
              class="grid"
              [attr.x1]="room.left"
              [attr.x2]="d.width - room.right"
              [attr.y1]="d.y(t)"
              [attr.y2]="d.y(t)"
            />
            <text class="tick" [attr.x]="room.left - 8" [attr.y]="d.y(t) + 4">{{ t * 100 }}%</text>
          }
          <line
            class="line"
            [attr.x1]="room.left"
            [attr.x2]="d.width - room.right"
            [attr.y1]="d.safe"
            [attr.y2]="d.safe"
          />
          <text class="tick ready" [attr.x]="room.left - 8" [attr.y]="d.safe + 4">ready</text>
          @for (c of d.cues; track c.id) {
            @if (!$first) {
              <line
                class="part"
                [attr.x1]="c.x - 4"
                [attr.x2]="c.x - 4"
                [attr.y1]="room.top"
                [attr.y2]="room.height - 8"
              />
            }
            <text class="cue" [attr.x]="c.x" [attr.y]="room.height - 20">{{ c.name }}</text>
            <text class="tempo" [attr.x]="c.x" [attr.y]="room.height - 6">{{ c.tempo }}</text>
          }
          @for (s of d.spots; track s.id) {
            <g [class.on]="s.on">
              @if (s.chance === null) {
                <text class="none" [attr.x]="s.x" [attr.y]="d.y(0) - 5">{{ s.wide < 36 ? '·' : 'open' }}</text>
              } @else {
                @if (s.after - s.chance > 0.02) {
                  <line
                    class="lift"
                    [attr.x1]="s.x"
                    [attr.x2]="s.x"
                    [attr.y1]="d.y(s.chance)"
                    [attr.y2]="d.y(s.after)"
                  />
                  <circle class="after" [attr.cx]="s.x" [attr.cy]="d.y(s.after)" r="4" />
                }
                <circle class="now" [class.good]="s.safe" [attr.cx]="s.x" [attr.cy]="d.y(s.chance)" r="6" />
              }
              <rect
                class="press"
                [attr.x]="s.x - s.wide / 2"
                [attr.y]="room.top"
                [attr.width]="s.wide"
                [attr.height]="room.height - room.top"
                (click)="store.lookAt(s.id)"
              />
            </g>
          }
        </svg>
      </div>
      <p class="key quiet">
        <span class="dot"></span> without more practice <span class="dot hollow"></span> with your minutes until then
        <span class="spacer"></span>
        <button type="button" class="btn small plain" (click)="saveSvg()">SVG</button>
        <button type="button" class="btn small plain" (click)="saveCsv()">CSV</button>
      </p>
    }
  `,
  styles: `
    :host {
      display: block;
    }
    svg {
      display: block;
    }
    .wide {
      overflow-x: auto;
    }
    .safe {
      fill: color-mix(in srgb, var(--good) 9%, transparent);
    }
    .grid {
      stroke: var(--line);
    }
    .line {
      stroke: var(--good);
      stroke-dasharray: 5 4;
    }
    .part {
      stroke: var(--line);
    }
    text {
      fill: var(--ink);
      font: 400 11px var(--mono);
    }
    .tick {
      text-anchor: end;
      fill: var(--quiet);
    }
    .ready {
      fill: var(--good);
      font-weight: 600;
    }
    .cue {
      font: 600 12px var(--text);
    }
    .tempo {
      fill: var(--quiet);
    }
    .none {
      text-anchor: middle;
      fill: var(--quiet);
      font-size: 10.5px;
    }
    .lift {
      stroke: var(--accent);
      stroke-width: 2;
    }
    .after {
      fill: var(--ground);
      stroke: var(--accent);
      stroke-width: 2;
    }
    .now {
      fill: var(--mark);
    }
    .now.good {
      fill: var(--good);
    }
    .press {
      fill: transparent;
      cursor: pointer;
    }
    .on .press {
      fill: color-mix(in srgb, var(--accent) 12%, transparent);
    }
    .key {
      display: flex;
      align-items: center;
      flex-wrap: wrap;
      gap: 4px 8px;
      font-size: 12px;
    }
    .spacer {
      flex: 1;
    }
    .dot {
      flex: none;
      width: 11px;
      height: 11px;
      border-radius: 50%;
      background: var(--mark);
    }
    .dot.hollow {
      margin-left: 10px;
      background: transparent;
      border: 2px solid var(--accent);
    }
  `,
})
export class ReadyChartComponent {
  readonly store = inject(ShowsStore);
  readonly room = ROOM;
  readonly ticks = [0, 0.5, 1];
  private readonly svg = viewChild<ElementRef<SVGSVGElement>>('svg');
  private readonly width = followWidth(inject<ElementRef<HTMLElement>>(ElementRef).nativeElement);

  readonly drawn = computed(() => {
    const [show, answer] = [this.store.show(), this.store.answer()];
    if (!show || !answer || answer.ready.spots.length === 0) return null;
    const ready = new Map(answer.ready.spots.map((s) => [s.spot, s]));
    const all = show.cues.flatMap((cue) => inTime(cue).flatMap((spot) => (ready.has(spot.id) ? [{ cue, spot }] : [])));
    const width = Math.max(320, this.width(), ROOM.left + ROOM.right + all.length * 22);
    const x = scaleBand(
      all.map((a) => a.spot.id),
      [ROOM.left, width - ROOM.right],
    );
    const scale = scaleLinear([0, 1], [ROOM.height - ROOM.bottom, ROOM.top]);
    const y = (chance: number): number => scale(chance);
    const cues = show.cues.flatMap((cue) => {
      const own = all.filter((a) => a.cue === cue);
      const at = own[0] && x(own[0].spot.id);
      if (at === undefined) return [];
      const letters = Math.floor((own.length * x.bandwidth() - 6) / LETTER);
      const name = cue.name.length <= letters ? cue.name : `${cue.name.slice(0, Math.max(1, letters - 1))}…`;
      return [{ id: cue.id, x: at + 4, name, tempo: cue.tempo }];
    });
    const spots = all.map(({ spot }) => {
      const own = ready.get(spot.id);
      return {
        id: spot.id,
        x: (x(spot.id) ?? 0) + x.bandwidth() / 2,
        wide: x.bandwidth(),
        chance: own?.chance ?? null,
        after: own?.after ?? 0,
        safe: (own?.chance ?? 0) >= SAFE,
        on: this.store.spot()?.spot.id === spot.id,
      };
    });
    return { width, inner: width - ROOM.left - ROOM.right, y, safe: y(SAFE), cues, spots };
  });
  readonly words = computed(() => `How ready each spot of ${this.store.show()?.name ?? 'the show'} is`);

  saveSvg(): void {
    const svg = this.svg()?.nativeElement;
    if (svg) void saveSvg(svg, fileName(`${this.store.show()?.name ?? 'show'} ready`, 'svg'));
  }

  saveCsv(): void {
    const show = this.store.show();
    const rows = (this.store.answer()?.ready.spots ?? []).flatMap((s) => {
      const cue = show?.cues.find((c) => c.id === s.cue);
      const spot = cue?.spots.find((o) => o.id === s.spot);
      if (!cue || !spot) return [];
      const said = (chance: number | null): string => (chance === null ? '' : chanceWords(chance));
      return [
        [
          cue.name,
          cue.tempo,
          spotText(spot, cue),
          this.store.nameOf(s.phrase) ?? '',
          said(s.chance),
          said(s.after),
          s.minutes ?? '',
        ],
      ];
    });
    const head = ['cue', 'bpm', 'spot', 'phrase', 'ready', 'with practice', 'minutes'];
    saveCsv([head, ...rows], fileName(`${show?.name ?? 'show'} ready`, 'csv'));
  }
}
