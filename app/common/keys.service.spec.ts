import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { key } from '../testing/place';
import { EscDirective } from './esc.directive';
import { KeysService } from './keys.service';

const pressed: string[] = [];

@Component({
  selector: 'ls-user',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<input /><button>b</button><span role="switch" aria-checked="true" tabindex="0">s</span
    ><span role="slider" aria-valuenow="1" tabindex="0">v</span>`,
})
class UserComponent {
  constructor() {
    const run = (name: string) => () => void pressed.push(name);
    inject(KeysService).use([
      { combo: 'Space', shown: 'Space', does: 'Play', run: run('space') },
      { combo: 'k', shown: 'K', does: 'Keep', run: run('k') },
      { combo: 'ArrowUp', shown: '↑', does: 'Faster', run: run('up') },
      { combo: 'Control+z', shown: 'Ctrl Z', does: 'Undo', run: run('undo') },
    ]);
  }
}

@Component({
  selector: 'ls-panel',
  imports: [EscDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (open()) {
      <div (lsEsc)="open.set(false)">a panel</div>
    }
  `,
})
class PanelComponent {
  readonly open = signal(true);
  constructor() {
    inject(KeysService).use([
      { combo: 'Escape', shown: 'Esc', does: 'Stop here', run: () => void pressed.push('stop') },
    ]);
  }
}

describe('a panel', () => {
  it('takes Esc before its place does, for as long as it is open', () => {
    pressed.length = 0;
    const fixture = TestBed.createComponent(PanelComponent);
    fixture.detectChanges();
    key('Escape');
    fixture.detectChanges();
    expect([fixture.componentInstance.open(), pressed]).toEqual([false, []]);
    key('Escape');
    expect(pressed).toEqual(['stop']);
    fixture.destroy();
  });
});

describe('keys', () => {
  function page() {
    pressed.length = 0;
    const fixture = TestBed.createComponent(UserComponent);
    document.body.append(fixture.nativeElement as Node);
    const at = (selector: string): Element => (fixture.nativeElement as HTMLElement).querySelector(selector)!;
    return { fixture, at };
  }
  it('work for as long as their place is open, and are listed', () => {
    const { fixture } = page();
    const keys = TestBed.inject(KeysService);
    expect(
      keys
        .all()
        .flat()
        .map((k) => k.does),
    ).toEqual(['Play', 'Keep', 'Faster', 'Undo']);
    key('k');
    fixture.destroy();
    key('k');
    expect(pressed).toEqual(['k']);
    expect(keys.all()).toEqual([]);
  });
  it('leave letters and undo to whoever types', () => {
    const { at } = page();
    key('k', at('input'));
    key('z', at('input'), { ctrlKey: true });
    key('ArrowUp', at('input'));
    expect(pressed).toEqual([]);
    key('z', document.body, { ctrlKey: true });
    expect(pressed).toEqual(['undo']);
  });
  it('leave Space to a button or switch that was reached, and arrows to a slider', () => {
    const { at } = page();
    key(' ', at('button'));
    key(' ', at('[role=switch]'));
    key('ArrowUp', at('[role=slider]'));
    key('k', at('button'));
    key(' ');
    key('ArrowUp');
    expect(pressed).toEqual(['k', 'space', 'up']);
  });
});
