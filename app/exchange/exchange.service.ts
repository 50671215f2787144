import { inject, Injectable } from '@angular/core';
import { proxy, type Remote } from 'comlink';
import type { SharedPhrase } from '@core/formats/shared';
import type { Lesson } from '@core/lesson';
import { AbleService } from '../knowledge/able.service';
import { KitsRepo } from '../storage/kits.repo';
import { MidiMapRepo } from '../storage/midi-map.repo';
import { SettingsRepo } from '../storage/settings.repo';
import { spawnExchange } from './spawn-exchange';
import { Unfetched } from '../environment/workers';
import type { ExchangeEngine, Opened, Score, SoundWish, Taking, Wish } from './exchange.engine';

/** The largest file that is read, in bytes. */
const MOST_BYTES = 24_000_000;

/** A file that is being written, with its way out. */
export interface Writing {
  /** Null when it was stopped. */
  readonly done: Promise<Blob | null>;
  cancel(): void;
}

/** Files of other programs, read and written in a worker. */
@Injectable({ providedIn: 'root' })
export class ExchangeService {
  private readonly kits = inject(KitsRepo);
  private readonly able = inject(AbleService);
  private readonly map = inject(MidiMapRepo);
  private readonly settings = inject(SettingsRepo);
  private held: { readonly api: ExchangeApi; readonly end: () => void } | null = null;
  private last: Uint8Array | null = null;
  private channel: number | null = null;

  /** Opens a file; what cannot be read comes back in words. */
  async open(file: Blob): Promise<Opened> {
    if (file.size > MOST_BYTES)
      return { kind: 'refused', words: `This file is larger than ${MOST_BYTES / 1_000_000} MB, so it cannot be read.` };
    try {
      this.last = new Uint8Array(await file.arrayBuffer());
      this.channel = null;
    } catch {
      return { kind: 'refused', words: 'The browser could not read this file. Choose it again.' };
    }
    return this.again();
  }

  /** The same file once more, by a map that has changed, or another MIDI channel of it, from 0. */
  async again(channel: number | null = this.channel): Promise<Opened> {
    this.channel = channel;
    const { last } = this;
    if (!last) return { kind: 'refused', words: 'Choose the file again.' };
    return this.asked((api) => api.open(last, this.map.now(), this.wish(), channel));
  }

  text(text: string): Promise<Opened> {
    return this.asked((api) => api.text(text));
  }

  take(from: number, many: number, way: number): Promise<Taking | null> {
    return this.ask((api) => api.take(from, many, way, this.wish()));
  }

  code(phrase: SharedPhrase): Promise<string> {
    return this.ask((api) => api.code(phrase));
  }

  lessonCode(lesson: Lesson): Promise<string> {
    return this.ask((api) => api.lessonCode(lesson));
  }

  midi(phrase: SharedPhrase): Promise<Uint8Array<ArrayBuffer>> {
    return this.ask((api) => api.midi(phrase, this.map.now()));
  }

  score(phrase: SharedPhrase): Promise<Score> {
    return this.ask((api) => api.score(phrase, this.map.now()));
  }

  /** Writes sound in a worker of its own, so that it can be stopped at once. */
  sound(wish: SoundWish, tell: (share: number) => void): Writing {
    const own = spawnExchange();
    let stop = (): void => undefined;
    const stopped = new Promise<null>((done) => (stop = () => done(null)));
    const done = Promise.race([own.api.sound(wish, proxy(tell)), stopped]).finally(() => own.end());
    return { done, cancel: () => stop() };
  }

  /** Lets the worker go, with what it has read. */
  close(): void {
    this.drop();
    this.last = null;
  }

  /** Asks the worker. One that could not be fetched is fetched again at the next question. */
  private async ask<T>(how: (api: ExchangeApi) => Promise<T>): Promise<T> {
    try {
      return await how((this.held ??= spawnExchange()).api);
    } catch (error) {
      if (error instanceof Unfetched) this.drop();
      throw error;
    }
  }

  private drop(): void {
    this.held?.end();
    this.held = null;
  }

  private wish(): Wish {
    return { kit: this.kits.current(), profile: this.able.now(), schools: this.settings.schools() };
  }

  private async asked(how: (api: ExchangeApi) => Promise<Opened>): Promise<Opened> {
    try {
      return await this.ask(how);
    } catch (error) {
      this.drop();
      if (error instanceof Unfetched) return { kind: 'unfetched' };
      return { kind: 'refused', words: 'This file could not be read. Nothing was changed. Choose it again.' };
    }
  }
}

/** The engine as it is asked from another thread. */
export type ExchangeApi = Remote<ExchangeEngine>;
