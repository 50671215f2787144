import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { inTurns } from './in-turns';
import { STILLNESS } from './stilled';

@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<p>first</p>
    @if (turn() > 0) {
      <p>second</p>
    }
    @if (turn() > 1) {
      <p>third</p>
    }`,
})
class PlaceComponent {
  readonly shows = signal(true);
  readonly edits = signal(0);
  readonly turn = inTurns(2, () => this.shows() && this.edits() >= 0);
}

const parts = (at: HTMLElement): string[] => [...at.querySelectorAll('p')].map((p) => p.textContent ?? '');

describe('in turns', () => {
  it('draws one part after the other, each in a task of its own', async () => {
    TestBed.configureTestingModule({ providers: [{ provide: STILLNESS, useValue: 140 }] });
    const fixture = TestBed.createComponent(PlaceComponent);
    const at = fixture.nativeElement as HTMLElement;
    fixture.detectChanges();
    const seen: string[][] = [parts(at)];
    for (let n = 0; n < 200 && parts(at).length < 3; n++) {
      await new Promise((r) => setTimeout(r, 1));
      if (parts(at).length !== seen.at(-1)?.length) seen.push(parts(at));
    }
    expect(seen).toEqual([['first'], ['first', 'second'], ['first', 'second', 'third']]);
  });

  it('waits until there is something to show, and begins again after there was nothing', async () => {
    TestBed.configureTestingModule({ providers: [{ provide: STILLNESS, useValue: 140 }] });
    const fixture = TestBed.createComponent(PlaceComponent);
    const { shows, turn } = fixture.componentInstance;
    const still = async (): Promise<void> => {
      await new Promise((r) => setTimeout(r, 40));
      fixture.detectChanges();
    };
    shows.set(false);
    fixture.detectChanges();
    await still();
    expect(turn()).toBe(0);
    shows.set(true);
    await still();
    await still();
    await still();
    expect(turn()).toBe(2);
    // What is shown changes, and stays where it is.
    fixture.componentInstance.edits.set(1);
    fixture.detectChanges();
    expect(turn()).toBe(2);
    shows.set(false);
    await still();
    expect(turn()).toBe(0);
  });

  it('is over at once for whoever needs a part that is not there yet, and goes no further after', async () => {
    TestBed.configureTestingModule({ providers: [{ provide: STILLNESS, useValue: 140 }] });
    const fixture = TestBed.createComponent(PlaceComponent);
    fixture.detectChanges();
    expect(parts(fixture.nativeElement as HTMLElement)).toEqual(['first']);
    fixture.componentInstance.turn.atOnce();
    fixture.detectChanges();
    expect(parts(fixture.nativeElement as HTMLElement)).toEqual(['first', 'second', 'third']);
    await new Promise((r) => setTimeout(r, 40));
    fixture.detectChanges();
    expect(fixture.componentInstance.turn()).toBe(2);
  });

  it('is over at once where nothing waits', () => {
    TestBed.configureTestingModule({ providers: [{ provide: STILLNESS, useValue: 0 }] });
    const fixture = TestBed.createComponent(PlaceComponent);
    fixture.detectChanges();
    expect(parts(fixture.nativeElement as HTMLElement)).toEqual(['first', 'second', 'third']);
  });
});
