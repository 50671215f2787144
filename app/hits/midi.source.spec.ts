import { TestBed } from '@angular/core/testing';
import { emptyPlace } from '../testing/place';
import { MidiSource } from './midi.source';

/** A stand-in for the browser's MIDI: devices that are plugged and unplugged by hand. */
function browserMidi(...names: string[]) {
  const inputs = new Map(
    names.map((name) => [name, { name, state: 'connected', onmidimessage: null as ((e: unknown) => void) | null }]),
  );
  const access = { inputs, onstatechange: null as (() => void) | null };
  Object.assign(navigator, { requestMIDIAccess: () => Promise.resolve(access) });
  return {
    hit: (name: string, note: number, at: number, velocity = 90, status = 0x99) =>
      inputs.get(name)?.onmidimessage?.({ data: new Uint8Array([status, note, velocity]), timeStamp: at }),
    plug: (name: string, state: 'connected' | 'disconnected') => {
      inputs.get(name)!.state = state;
      access.onstatechange?.();
    },
  };
}

async function midi() {
  await emptyPlace();
  const source = TestBed.inject(MidiSource);
  const notes: (number | null)[] = [];
  source.hits$.subscribe((h) => notes.push(h.velocity));
  return { source, notes };
}

describe('MIDI', () => {
  afterEach(() => {
    Reflect.deleteProperty(navigator, 'requestMIDIAccess');
  });

  it('a browser without it, a refusal and no device are said in words', async () => {
    const { source } = await midi();
    expect(await source.start()).toBe(false);
    expect(source.trouble()).toContain('does not support MIDI');
    Object.assign(navigator, { requestMIDIAccess: () => Promise.reject(new Error('no')) });
    expect(await source.start()).toBe(false);
    expect(source.trouble()).toContain('not allowed');
    browserMidi();
    expect(await source.start()).toBe(false);
    expect(source.trouble()).toContain('No MIDI device is connected');
  });
  it('hears strokes with their time and loudness; their ends, echoes and other messages are none', async () => {
    const { source, notes } = await midi();
    const pad = browserMidi('Pad');
    expect(await source.start()).toBe(true);
    pad.hit('Pad', 38, 1000, 80);
    pad.hit('Pad', 38, 1010, 60);
    pad.hit('Pad', 38, 1100, 0);
    pad.hit('Pad', 38, 1200, 70, 0x89);
    pad.hit('Pad', 38, 1300, 100);
    expect(notes).toEqual([80, 100]);
    source.stop();
    pad.hit('Pad', 38, 2000);
    expect(notes).toHaveLength(2);
  });
  it('two devices are heard as one, and it says so; one of them can be chosen', async () => {
    const { source, notes } = await midi();
    const both = browserMidi('Pad', 'Kit');
    await source.start();
    expect(source.news()).toBe('2 devices are heard as one: “Pad”, “Kit”.');
    both.hit('Pad', 38, 1000, 11);
    both.hit('Kit', 38, 2000, 22);
    source.listenTo('Kit');
    expect(source.news()).toBe('Only “Kit” is heard.');
    both.hit('Pad', 38, 3000, 33);
    both.hit('Kit', 38, 4000, 44);
    expect(notes).toEqual([11, 22, 44]);
  });
  it('one of two unplugged: the other goes on; the chosen one unplugged: trouble, until it is back', async () => {
    const { source, notes } = await midi();
    const both = browserMidi('Pad', 'Kit');
    await source.start();
    both.plug('Pad', 'disconnected');
    expect(source.trouble()).toBeNull();
    expect(source.news()).toBe('“Pad” was unplugged. Still heard: “Kit”.');
    both.hit('Kit', 38, 1000, 5);
    expect(notes).toEqual([5]);
    both.plug('Pad', 'connected');
    source.listenTo('Pad');
    both.plug('Pad', 'disconnected');
    expect(source.trouble()).toContain('“Pad” is not connected');
    both.plug('Kit', 'disconnected');
    expect(source.trouble()).toContain('was unplugged. What you played is kept');
    both.plug('Pad', 'connected');
    expect(source.trouble()).toBeNull();
  });
});
