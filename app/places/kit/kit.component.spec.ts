import { TestBed } from '@angular/core/testing';
import { ProfileRepo } from '../../storage/profile.repo';
import { KitsRepo } from '../../storage/kits.repo';
import { mount } from '../../testing/mount';
import { emptyPlace, key } from '../../testing/place';
import { HandsPanelComponent } from './hands-panel.component';
import { KitComponent } from './kit.component';
import { KitPanelComponent } from './kit-panel.component';
import { KitsStore } from './kits.store';
import { LimbTestComponent } from './limb-test.component';

describe('my kit', () => {
  it('presets become kits of one’s own; the last one cannot be removed; names are kept', async () => {
    await emptyPlace();
    const store = TestBed.inject(KitsStore);
    store.addPreset('four');
    store.addPreset('four');
    expect(store.all().kits.map((k) => k.id)).toEqual(['five', 'pad', 'four', 'four-2']);
    expect(store.current().id).toBe('four-2');
    store.rename('  My four  ');
    store.rename('   ');
    expect(store.current().name).toBe('My four');
    for (let i = 0; i < 6; i++) store.removeKit();
    expect(store.all().kits).toHaveLength(1);
    store.undo();
    expect(store.all().kits).toHaveLength(2);
  });
  it('values are held to what can be; one drag is one step; feet and sides change', async () => {
    await emptyPlace();
    const store = TestBed.inject(KitsStore);
    const [piece] = store.current().pieces;
    for (const x of [10, 20, 9999]) store.setPiece(piece!.id, { x, diameter: 3, turn: 190 }, 'drag');
    store.endStep();
    expect(store.current().pieces[0]).toMatchObject({ x: 200, diameter: 10, turn: -170 });
    store.undo();
    expect(store.current().pieces[0]).toEqual(piece);
    store.foot('J', 'left foot');
    store.mirror();
    expect(store.current().feet).toEqual({ K: 'left foot', J: 'right foot', H: 'right foot' });
    expect(TestBed.inject(KitsRepo).current().handed).toBe('left');
  });
  it('a piece is chosen, named, given surfaces and removed in the panel', async () => {
    await emptyPlace();
    const m = mount(KitPanelComponent);
    const store = TestBed.inject(KitsStore);
    store.choose('hat');
    m.fixture.detectChanges();
    m.fill('Name of the piece', 'Old hats');
    m.press('half-open hi-hat');
    expect(store.chosen()).toMatchObject({ name: 'Old hats', voices: ['hat-closed', 'hat-open', 'hat-foot'] });
    m.fill('ahead, cm', '52');
    expect(store.chosen()?.y).toBe(52);
    key('Delete', m.host.querySelector('[aria-label^="Old hats"]')!);
    m.fixture.detectChanges();
    expect(store.current().pieces.some((p) => p.id === 'hat')).toBe(false);
    m.choose('Add a piece', 'hi-hat');
    expect(store.chosen()?.kind).toBe('hi-hat');
  });
  it('has parts, each behind its tab', async () => {
    await emptyPlace();
    const m = mount(KitComponent);
    m.press('My hands and feet');
    expect(m.text()).toContain('Limb test');
    m.press('My data and settings');
    expect(m.text()).toContain('Export the shelf');
  });
});

describe('my hands and feet', () => {
  it('which hand leads is kept; usual values come back and can be taken back', async () => {
    await emptyPlace();
    const m = mount(HandsPanelComponent);
    const profile = TestBed.inject(ProfileRepo);
    m.press('left hand');
    // The first button of that name belongs to the test; the second says who leads.
    [...m.host.querySelectorAll<HTMLButtonElement>('.row .btn')]
      .filter((b) => b.textContent.trim() === 'left hand')
      .at(-1)
      ?.click();
    expect(profile.now().leads).toBe('L');
    expect(m.button('Use typical values').disabled).toBe(true);
  });
  it('a test of ten seconds is read from the hits of its limb, and kept only when asked', async () => {
    await emptyPlace();
    const m = mount(LimbTestComponent);
    const profile = TestBed.inject(ProfileRepo);
    await m.component.start();
    for (let i = 0; i <= 60; i++) m.component.moments.update((all) => [...all, i / 6]);
    m.component.stop();
    m.fixture.detectChanges();
    expect(m.text()).toContain('6.0 strokes per second, very even, steady to the end.');
    expect(profile.now().measured).toEqual([]);
    m.press('Use as my speed');
    expect(profile.now().rates.R.singles).toBe(6);
    await m.component.start();
    m.component.moments.set([0, 1]);
    m.component.stop();
    m.fixture.detectChanges();
    expect(m.text()).toContain('Too few strokes');
  });
});
