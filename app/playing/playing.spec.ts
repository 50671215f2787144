import { TestBed } from '@angular/core/testing';
import { build } from '@core/recipe';
import { rendition, requestOf } from '@core/rendition';
import { Transport } from '../sound/transport.service';
import { LoudnessRepo } from '../storage/loudness.repo';
import { typed } from '../testing/fixtures';
import { heard, mount } from '../testing/mount';
import { SilentTransport } from '../testing/silence';
import { freshTestBed } from '../testing/test-bed';
import { HearingComponent } from './hearing.component';
import { LoudnessComponent } from './loudness.component';
import { Player } from './player';

const request = (bpm: number) => requestOf(rendition({ phrase: build(typed('R L R L')).pattern }), bpm);

function player() {
  freshTestBed();
  const transport = new SilentTransport();
  TestBed.configureTestingModule({ providers: [{ provide: Transport, useValue: transport }] });
  return { transport, player: TestBed.inject(Player) };
}

describe('the player', () => {
  it('sounds for one owner at a time; silence belongs to nobody', () => {
    const { player: p, transport } = player();
    expect(p.owner()).toBeNull();
    p.play('one', request(60));
    expect(p.owner()).toBe('one');
    p.stop('two');
    expect(p.owner()).toBe('one');
    p.stop('one');
    expect([p.owner(), transport.playing()]).toEqual([null, false]);
  });
  it('another takes over without losing the beat, and begins where nothing sounds', () => {
    const { player: p, transport } = player();
    p.takeOver('one', request(60));
    p.takeOver('two', request(90));
    expect([p.owner(), transport.requests.length, transport.changes.at(-1)?.bpm]).toEqual(['two', 1, 90]);
  });
  it('a change is heard of its owner only; nothing left of it is silence', () => {
    const { player: p, transport } = player();
    p.play('one', request(60));
    p.follow('two', request(70));
    expect(transport.changes).toEqual([]);
    p.follow('one', request(80));
    expect(transport.changes.at(-1)?.bpm).toBe(80);
    p.follow('one', null);
    expect(transport.playing()).toBe(false);
    p.follow('one', request(90));
    expect(transport.playing()).toBe(false);
  });
  it('is begun and stopped by the same press, whoever sounded before', () => {
    const { player: p, transport } = player();
    p.play('one', request(60));
    p.toggle('two', request(70));
    expect(p.owner()).toBe('two');
    p.toggle('two', request(70));
    expect(transport.playing()).toBe(false);
  });
});

describe('what is heard', () => {
  it('limbs and roles are silenced one by one; only the groove, only the hands, all again', () => {
    const m = mount(HearingComponent, { mute: { limbs: [], roles: [] }, playing: ['R', 'L', 'K'] });
    const told = heard(m.component.muteChange);
    m.component.muteChange.subscribe((mute) => m.set('mute', mute));
    expect(m.text()).not.toContain('second kick');
    m.press('kick foot');
    m.press('texture');
    expect(told.at(-1)).toEqual({ limbs: ['K'], roles: ['texture'] });
    m.press('kick foot');
    expect(told.at(-1)).toEqual({ limbs: [], roles: ['texture'] });
    m.press('Only the groove');
    expect(told.at(-1)).toEqual({ limbs: [], roles: ['timekeeping', 'texture'] });
    m.press('Only hands');
    expect(told.at(-1)).toEqual({ limbs: ['K', 'J', 'H'], roles: [] });
    m.press('All');
    expect(told.at(-1)).toEqual({ limbs: [], roles: [] });
    m.set('playing', ['J']);
    expect(m.text()).toContain('second kick');
  });
  it('loudness has a slider for each part, is remembered, and evens out', async () => {
    const m = mount(LoudnessComponent);
    const repo = TestBed.inject(LoudnessRepo);
    await repo.set('timekeeping', 0.5);
    m.fixture.detectChanges();
    // The form's values arrive a turn later.
    await new Promise((r) => setTimeout(r));
    m.fixture.detectChanges();
    const sliders = [...m.host.querySelectorAll('[role=slider]')];
    expect(sliders.map((s) => s.getAttribute('aria-label'))).toEqual([
      'Loudness: groove',
      'Loudness: timekeeping',
      'Loudness: texture',
      'Loudness: click',
      'Loudness: counting',
    ]);
    expect(sliders[1]?.getAttribute('aria-valuenow')).toBe('50');
    sliders[1]!.dispatchEvent(new KeyboardEvent('keydown', { code: 'ArrowRight', key: 'ArrowRight', bubbles: true }));
    expect(repo.now().timekeeping).toBeCloseTo(0.55, 9);
    m.press('All equal');
    expect(new Set(Object.values(repo.now()))).toEqual(new Set([1]));
  });
});
