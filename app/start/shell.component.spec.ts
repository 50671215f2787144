import { TestBed } from '@angular/core/testing';
import { HealthService, PATIENCE } from '../storage/health.service';
import { SettingsRepo } from '../storage/settings.repo';
import { currentShelf } from '../environment/which-shelf';
import { until } from '../testing/fixtures';
import { mount } from '../testing/mount';
import { emptyPlace, key } from '../testing/place';
import { NoticesComponent } from './notices.component';
import { NoticesService } from '../common/notices.service';
import { PLACES } from './places';
import { ShellComponent } from './shell.component';

describe('the shell', () => {
  it('goes to every place by its digit, and marks none twice', async () => {
    const { went } = await emptyPlace();
    mount(ShellComponent);
    for (const p of PLACES) key(String(p.digit));
    expect(went.map((w) => w.split(' ')[0])).toEqual(PLACES.map((p) => p.path));
    expect(new Set(PLACES.map((p) => p.digit)).size).toBe(PLACES.length);
  });
  it('is dark when the settings say so', async () => {
    await emptyPlace();
    const m = mount(ShellComponent);
    await TestBed.inject(SettingsRepo).change({ theme: 'dark' });
    m.fixture.detectChanges();
    expect(document.documentElement.classList.contains('dark')).toBe(true);
    await TestBed.inject(SettingsRepo).change({ theme: 'light' });
    m.fixture.detectChanges();
    expect(document.documentElement.classList.contains('dark')).toBe(false);
  });
  it('shows a trouble with storage until it is tried again or closed', async () => {
    await emptyPlace();
    const m = mount(ShellComponent);
    const health = TestBed.inject(HealthService);
    let full = true;
    await health.write(() => (full ? Promise.reject(new DOMException('x', 'QuotaExceededError')) : Promise.resolve()));
    m.fixture.detectChanges();
    expect(m.host.querySelector('[role=alert]')?.textContent).toContain('is full');
    full = false;
    // What the browser holds may go with a full disk: a backup is asked for at once.
    expect(m.button('Save a backup')).toBeTruthy();
    m.press('Try again');
    await until(() => health.trouble() === null);
    m.fixture.detectChanges();
    expect(m.host.querySelector('[role=alert]')).toBeNull();
  });
  it('says that the shelf is busy while an answer of the storage is long in coming, and no longer', async () => {
    await emptyPlace([{ provide: PATIENCE, useValue: 5 }]);
    const m = mount(ShellComponent);
    const health = TestBed.inject(HealthService);
    let free = (): void => undefined;
    const written = health.write(() => new Promise<void>((resolve) => (free = resolve)));
    await until(() => health.trouble() !== null);
    m.fixture.detectChanges();
    expect(m.host.querySelector('[role=status]')?.textContent).toContain('The shelf is busy');
    free();
    await written;
    m.fixture.detectChanges();
    expect(m.text()).not.toContain('busy');
  });
  it('a tab that is over takes no key', async () => {
    const { went } = await emptyPlace();
    mount(ShellComponent);
    key('2');
    expect(went).toHaveLength(1);
    TestBed.inject(HealthService).end('Gone.');
    key('3');
    expect(went).toHaveLength(1);
  });
  it('the keyboard always has a place: where what had it is gone, the place has it', async () => {
    await emptyPlace();
    const m = mount(ShellComponent);
    document.body.append(m.host);
    const button = document.createElement('button');
    m.host.append(button);
    button.focus();
    button.blur();
    await until(() => document.activeElement?.id === 'place');
    m.host.remove();
  });
  it('lets the browser ask before a tab is closed that holds what is not kept', async () => {
    await emptyPlace();
    const m = mount(ShellComponent);
    const asked = (): boolean => !window.dispatchEvent(new Event('beforeunload', { cancelable: true }));
    expect(asked()).toBe(false);
    let end = (): void => undefined;
    const written = TestBed.inject(HealthService).write(() => new Promise<void>((resolve) => (end = resolve)));
    m.fixture.detectChanges();
    expect([asked(), m.host.getAttribute('data-writing')]).toEqual([true, 'yes']);
    end();
    await written;
    m.fixture.detectChanges();
    expect([asked(), m.host.getAttribute('data-writing')]).toEqual([false, 'no']);
  });
  it('a button pressed by pointer gives the keyboard back at once, one pressed by key keeps it', async () => {
    await emptyPlace();
    const m = mount(ShellComponent);
    document.body.append(m.host);
    const button = m.button('The guide and its keys');
    const held = (clicks: number): boolean => {
      button.focus();
      button.dispatchEvent(new MouseEvent('click', { bubbles: true, detail: clicks }));
      return document.activeElement === button;
    };
    expect([held(0), held(1)]).toEqual([true, false]);
    m.host.remove();
  });
  it('a notice carries the way back, also one that was given before there was a place for it', async () => {
    await emptyPlace();
    const notices = TestBed.inject(NoticesService);
    let back = 0;
    expect(notices.wanted()).toBe(false);
    notices.tell('Gone.', { label: 'Put it back', run: () => back++ });
    expect(notices.wanted()).toBe(true);
    const m = mount(NoticesComponent);
    m.fixture.detectChanges();
    expect(m.text()).toContain('Gone.');
    m.press('Put it back');
    expect([back, notices.last()]).toEqual([1, 'Gone.']);
    m.fixture.detectChanges();
    notices.wrong('Not that either.');
    m.fixture.detectChanges();
    expect(m.text()).toContain('Not that either.');
    expect(m.component.actionOf(null)).toBeNull();
  });
  it('a notice that was closed before there was a place for it does not come back', async () => {
    await emptyPlace();
    const notices = TestBed.inject(NoticesService);
    notices.tell('Gone.');
    notices.close();
    const m = mount(NoticesComponent);
    m.fixture.detectChanges();
    expect(m.text()).not.toContain('Gone.');
  });
});

describe('which shelf', () => {
  it('is mine, unless the address asked for the demo last', () => {
    localStorage.clear();
    sessionStorage.clear();
    expect(currentShelf()).toBe('mine');
    // Another tab opens the demo: a reload of this one shows what it showed.
    localStorage.setItem('loop-shelf.which', 'demo');
    expect(currentShelf()).toBe('mine');
    // A new tab shows what was asked for last.
    sessionStorage.clear();
    expect(currentShelf()).toBe('demo');
    localStorage.clear();
    expect(currentShelf()).toBe('demo');
    sessionStorage.clear();
  });
});
