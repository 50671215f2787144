import { TestBed } from '@angular/core/testing';
import { signal } from '@angular/core';
import { Subject } from 'rxjs';
import type { Hit } from '@core/take';
import { mount } from '../../testing/mount';
import { emptyPlace } from '../../testing/place';
import { MidiMapRepo } from '../../storage/midi-map.repo';
import { ProfileRepo } from '../../storage/profile.repo';
import { MidiSource } from '../../hits/midi.source';
import { DevicesPanelComponent } from './devices-panel.component';
import { HandsPanelComponent } from './hands-panel.component';
import { KitPanelComponent } from './kit-panel.component';
import { KitsStore } from './kits.store';
import { LimbTestComponent } from './limb-test.component';

async function midiPanel() {
  const midi = {
    trouble: signal<string | null>(null),
    devices: signal<readonly string[]>([]),
    lastNote: signal<number | null>(null),
    hits$: new Subject<Hit>(),
    starts: 0,
    start: () => Promise.resolve(midi.starts++ >= 0),
    stop: () => undefined,
  };
  await emptyPlace([{ provide: MidiSource, useValue: midi }]);
  const m = mount(DevicesPanelComponent);
  const strike = (note: number): void => {
    midi.lastNote.set(note);
    midi.hits$.next({ seconds: 0, limb: null, voice: null, velocity: 90 });
    m.fixture.detectChanges();
  };
  return { midi, m, strike, map: TestBed.inject(MidiMapRepo) };
}

describe('my devices', () => {
  it('says what to do, what is connected, and what is wrong', async () => {
    const { m, midi } = await midiPanel();
    expect(m.text()).toContain('Connect a pad or an electronic kit');
    m.press('Listen to MIDI');
    expect(midi.starts).toBe(1);
    midi.devices.set(['Pad', 'Kit']);
    m.fixture.detectChanges();
    expect(m.text()).toContain('Connected: Pad, Kit.');
    midi.trouble.set('It was unplugged.');
    m.fixture.detectChanges();
    expect(m.host.querySelector('[role=alert]')?.textContent).toBe('It was unplugged.');
  });
});

describe('teaching notes', () => {
  it('press a voice, hit it: the note is that voice; pressing it again leaves it; the usual notes come back', async () => {
    const { m, strike, map } = await midiPanel();
    m.press('cross-stick');
    expect(m.text()).toContain('hit it now …');
    m.press('cross-stick');
    expect(m.text()).not.toContain('hit it now …');
    strike(85);
    expect(m.text()).toContain('last note: 85, not set');
    m.press('cross-stick');
    strike(85);
    expect(map.voiceOf(85)).toBe('cross-stick');
    expect(m.text()).toContain('last note: 85, cross-stick');
    m.press('Use the usual notes');
    expect(map.voiceOf(85)).not.toBe('cross-stick');
  });
});

describe('the limb test', () => {
  async function test() {
    await emptyPlace();
    const m = mount(LimbTestComponent);
    return { m, profile: TestBed.inject(ProfileRepo) };
  }
  it('asks which limb, singles or doubles, and on what; warns before it begins', async () => {
    const { m } = await test();
    m.press('left hand');
    m.press('doubles');
    m.press('Simulated player');
    expect([m.component.limb(), m.component.kind(), m.component.source()]).toEqual(['L', 'doubles', 'simulated']);
    expect(m.text()).toContain('Warm up first. Then play doubles, with a short gap between the pairs');
    expect(m.text()).toContain('Stop at once if anything hurts');
    m.fill('Strokes per second it plays', '6.54');
    expect(m.component.simulatedRate()).toBe(6.5);
    m.fill('Strokes per second it plays', '99');
    expect(m.component.simulatedRate()).toBe(20);
  });
  it('what was heard is read with a picture; nothing is kept until it is asked for', async () => {
    const { m, profile } = await test();
    const before = profile.now().rates.R.singles;
    m.component.moments.set(Array.from({ length: 60 }, (_, i) => i / 7));
    m.component.phase.set('read');
    m.fixture.detectChanges();
    expect(m.text()).toContain('7.0 strokes per second, very even');
    expect(m.component.bars()).toHaveLength(59);
    expect(profile.now().rates.R.singles).toBe(before);
    m.press('Use as my speed');
    expect(profile.now().rates.R.singles).toBe(7);
    m.component.moments.set([0, 1]);
    m.component.phase.set('read');
    m.fixture.detectChanges();
    expect(m.text()).toContain('Too few strokes');
  });
});

describe('the way test', () => {
  it('goes between two pieces of the kit with a hand; what is no way is not taken; kept when asked, and taken back', async () => {
    await emptyPlace();
    const m = mount(LimbTestComponent);
    const profile = TestBed.inject(ProfileRepo);
    m.press('kick foot');
    m.press('to and fro');
    expect(m.component.limb()).toBe('R');
    expect(m.text()).toMatch(/\d+ cm apart on this kit/);
    expect(m.text()).toContain('from one to the other and back');
    m.component.goBetween('to', 'snare');
    expect(m.component.ends()).toEqual({ from: 'floor-tom', to: 'snare' });
    const play = (rate: number): void => {
      m.component.moments.set(Array.from({ length: 50 }, (_, i) => i / rate));
      m.component.phase.set('read');
      m.fixture.detectChanges();
    };
    play(9);
    expect(m.text()).toContain('as fast as on one piece (7.5)');
    expect(m.text()).toContain('Nothing changed.');
    play(4);
    expect(m.text()).toMatch(/250 ms for \d+ cm/);
    expect(profile.now().ways ?? []).toEqual([]);
    m.press('Use as my travel time');
    expect(profile.now().ways).toMatchObject([{ hand: 'R', from: 'floor-tom', to: 'snare', seconds: 0.25 }]);
    const panel = mount(HandsPanelComponent);
    expect(panel.text()).toContain('right hand, floor tom and snare');
    panel.press('Use typical values');
    expect(profile.now().ways ?? []).toEqual([]);
  });
});

describe('my hands and feet', () => {
  it('which hand and foot lead; what was measured has its day, the rest is a usual value', async () => {
    await emptyPlace();
    const m = mount(HandsPanelComponent);
    const profile = TestBed.inject(ProfileRepo);
    const lead = (words: string): void => {
      [...m.host.querySelectorAll('button')]
        .filter((b) => b.textContent.trim() === words)
        .at(-1)!
        .click();
      m.fixture.detectChanges();
    };
    lead('left hand');
    lead('left foot');
    expect([profile.now().leads, profile.now().leadsFoot]).toEqual(['L', 'left foot']);
    expect(m.host.querySelectorAll('table:not(.ways) tbody tr')).toHaveLength(5);
    expect(m.button('Use typical values').disabled).toBe(true);
    expect(m.text()).toContain('see a doctor or physiotherapist');
  });
});

describe('the kit panel', () => {
  it('numbers that cannot be are held, every change is one undo, and a kit says what is wrong with it', async () => {
    await emptyPlace();
    const m = mount(KitPanelComponent);
    const store = TestBed.inject(KitsStore);
    store.choose('snare');
    m.fixture.detectChanges();
    m.fill('across, cm', '900');
    const wide = store.chosen()!.diameter;
    expect(wide).toBeLessThan(200);
    m.fill('right, cm', '-20');
    expect(store.chosen()!.x).toBe(-20);
    store.undo();
    expect(store.chosen()!.x).not.toBe(-20);
    expect(store.chosen()!.diameter).toBe(wide);
    for (const p of store.current().pieces) store.removePiece(p.id);
    m.fixture.detectChanges();
    expect(store.findings().length).toBeGreaterThan(0);
    expect(m.text()).toContain(store.findings()[0]!.words);
    expect(m.text()).not.toContain('NaN');
  });
});
