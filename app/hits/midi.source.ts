import { inject, Injectable, signal } from '@angular/core';
import { Subject } from 'rxjs';
import type { Hit } from '@core/take';
import { KitsRepo } from '../storage/kits.repo';
import { MidiMapRepo } from '../storage/midi-map.repo';
import type { HitSource } from './source';
import { within } from './within';

const NOTE_ON = 0x90;
/** So long an answer is waited for: a question to the player may stand there meanwhile. In milliseconds. */
const ANSWER_MS = 20_000;
/**
 * What comes sooner than this after the same note, in seconds, is its echo. A pad that sends twice later than that is
 * told of by the reading of the take, which knows whether a flam was meant.
 */
const ECHO_SECONDS = 0.012;

/** Any pad or kit that speaks MIDI. Notes are voices once they were taught, and unknown until then. */
@Injectable({ providedIn: 'root' })
export class MidiSource implements HitSource {
  readonly kind = 'midi';
  readonly name = 'MIDI pad or kit';
  readonly hint = 'Also hears loudness and pieces. Set the notes under Kit.';
  private readonly map = inject(MidiMapRepo);
  private readonly kits = inject(KitsRepo);
  private readonly hits = new Subject<Hit>();
  readonly hits$ = this.hits.asObservable();
  private readonly troubleState = signal<string | null>(null);
  readonly trouble = this.troubleState.asReadonly();
  private readonly newsState = signal<string | null>(null);
  readonly news = this.newsState.asReadonly();
  /** Names of the devices that are connected. */
  readonly devices = signal<readonly string[]>([]);
  /** The one device that is listened to; null for all of them. */
  readonly only = signal<string | null>(null);
  /** The last note that came in, for teaching. */
  readonly lastNote = signal<number | null>(null);
  private access: MIDIAccess | null = null;
  private readonly lastAt = new Map<number, number>();

  async start(): Promise<boolean> {
    if (!('requestMIDIAccess' in navigator)) return this.fail('This browser does not support MIDI.');
    try {
      this.access ??= await within(ANSWER_MS, navigator.requestMIDIAccess());
    } catch (error) {
      const late = error instanceof DOMException && error.name === 'TimeoutError';
      return this.fail(
        late
          ? 'MIDI does not answer. Unplug the device and plug it in again, then choose it again.'
          : 'The browser was not allowed to use MIDI. Allow it in the address bar, then choose it again.',
      );
    }
    this.access.onstatechange = () => this.connect();
    this.connect();
    return this.devices().length > 0;
  }

  stop(): void {
    for (const input of this.access?.inputs.values() ?? []) input.onmidimessage = null;
    if (this.access) this.access.onstatechange = null;
  }

  /** Listens to one device of several, or to all. */
  listenTo(device: string | null): void {
    this.only.set(device);
    this.connect();
  }

  private connect(): void {
    const inputs = [...(this.access?.inputs.values() ?? [])];
    const there = inputs.filter((i) => i.state === 'connected');
    const names = there.map(nameOf);
    const before = this.devices();
    const only = this.only();
    for (const input of inputs)
      input.onmidimessage =
        input.state === 'connected' && (only === null || nameOf(input) === only) ? (event) => this.hear(event) : null;
    this.devices.set(names);
    const gone = before.filter((name) => !names.includes(name));
    if (names.length === 0)
      this.fail(
        before.length > 0
          ? 'The MIDI device was unplugged. What you played is kept. Plug it in again.'
          : 'No MIDI device is connected. Plug one in and switch it on.',
      );
    else if (only !== null && !names.includes(only))
      this.fail(`“${only}” is not connected. Plug it in again, or choose another.`);
    else this.troubleState.set(null);
    this.newsState.set(newsOf(names, gone, only));
  }

  private fail(words: string): false {
    this.troubleState.set(words);
    return false;
  }

  private hear(event: MIDIMessageEvent): void {
    const [status = 0, note = 0, velocity = 0] = event.data ?? [];
    if ((status & 0xf0) !== NOTE_ON || velocity === 0 || note > 127) return;
    const seconds = event.timeStamp / 1000;
    if (seconds - (this.lastAt.get(note) ?? -1) < ECHO_SECONDS) return;
    this.lastAt.set(note, seconds);
    this.lastNote.set(note);
    this.hits.next({ seconds, limb: null, voice: this.kits.heardAs(this.map.voiceOf(note)), velocity });
  }
}

function nameOf(input: MIDIInput): string {
  return input.name ?? 'a MIDI device';
}

function newsOf(names: readonly string[], gone: readonly string[], only: string | null): string | null {
  if (gone.length > 0 && names.length > 0)
    return `“${gone.join('”, “')}” was unplugged. Still heard: “${names.join('”, “')}”.`;
  if (names.length < 2) return null;
  return only === null
    ? `${names.length} devices are heard as one: “${names.join('”, “')}”.`
    : `Only “${only}” is heard.`;
}
