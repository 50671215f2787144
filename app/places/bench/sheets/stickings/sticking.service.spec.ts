import { MessageChannel } from 'node:worker_threads';
import { TestBed } from '@angular/core/testing';
import { expose } from 'comlink';
import { USUAL_SCHOOLS } from '@core/time';
import { build } from '@core/recipe';
import { USUAL_KIT } from '@core/kit';
import { USUAL_PROFILE } from '@core/reach';
import { stickings } from '@core/sticking';
import { typed } from '../../../../testing/fixtures';
import { freshTestBed } from '../../../../testing/test-bed';
import { lightened } from './light-stickings';
import * as spawning from './spawn-sticking';
import { StickingWorker } from './sticking.service';

/** Every channel that was opened, so that none keeps the test run waiting. */
const opened: MessageChannel[] = [];
class CountedChannel extends MessageChannel {
  constructor() {
    super();
    opened.push(this);
  }
}
Object.assign(globalThis, { MessageChannel: CountedChannel });

/** Stands in for a worker: the same calls through a real channel, on this thread. */
class ChannelWorker {
  static all: ChannelWorker[] = [];
  onerror: ((event: { message: string }) => void) | null = null;
  ended = false;
  finds = 0;
  private readonly channel = new CountedChannel();
  constructor(deaf = false) {
    ChannelWorker.all.push(this);
    const find = (...[pattern, wish]: Parameters<typeof stickings>): unknown => {
      this.finds++;
      return lightened(stickings(pattern, wish));
    };
    if (!deaf) expose({ find }, this.channel.port2 as never);
  }
  addEventListener(...args: [string, never]): void {
    this.channel.port1.addEventListener(...args);
    this.channel.port1.start();
  }
  removeEventListener(...args: [string, never]): void {
    this.channel.port1.removeEventListener(...args);
  }
  postMessage(...args: [never, never]): void {
    this.channel.port1.postMessage(...args);
  }
  terminate(): void {
    this.ended = true;
    this.channel.port1.close();
  }
}

const { pattern } = build(typed('R R L R L L R L'));
const wish = {
  bpm: 100,
  kit: USUAL_KIT,
  profile: USUAL_PROFILE,
  pins: new Map(),
  schools: USUAL_SCHOOLS,
  many: 2,
  apart: 2,
};
const silent = (): void => undefined;

describe('the sticking worker', () => {
  let deaf = false;
  let service: StickingWorker;
  beforeEach(() => {
    freshTestBed();
    ChannelWorker.all = [];
    deaf = false;
    jest.spyOn(spawning, 'spawnSticking').mockImplementation(() => new ChannelWorker(deaf) as never);
    service = TestBed.inject(StickingWorker);
  });
  afterEach(() => {
    for (const { port1, port2 } of opened.splice(0)) {
      port1.close();
      port2.close();
    }
  });

  it('answers with the same stickings as core, patterns and all, and is kept for the next search', async () => {
    expect(await service.search(pattern, wish, silent).found).toEqual(stickings(pattern, wish));
    await service.search(pattern, wish, silent).found;
    expect(ChannelWorker.all.map((w) => w.finds)).toEqual([2]);
  });
  it('a search that is stopped ends its worker, and another stands ready for the next', async () => {
    deaf = true;
    const search = service.search(pattern, wish, silent);
    deaf = false;
    search.cancel();
    search.cancel();
    expect(ChannelWorker.all.map((w) => w.ended)).toEqual([true, false]);
    await service.search(pattern, wish, silent).found;
    expect(ChannelWorker.all).toHaveLength(2);
  });
  it('two searches at once have a worker each, and one is kept', async () => {
    await Promise.all([service.search(pattern, wish, silent).found, service.search(pattern, wish, silent).found]);
    expect(ChannelWorker.all.map((w) => w.ended).sort()).toEqual([false, true]);
  });
  it('a worker that breaks is said, and the next search has a new one', async () => {
    deaf = true;
    const search = service.search(pattern, wish, silent);
    ChannelWorker.all[0]!.onerror!({ message: 'out of memory' });
    await expect(search.found).rejects.toThrow('out of memory');
    deaf = false;
    await service.search(pattern, wish, silent).found;
    expect(ChannelWorker.all.map((w) => w.ended)).toEqual([true, false]);
  });
  it('is warmed once', () => {
    service.warm();
    service.warm();
    expect(ChannelWorker.all).toHaveLength(1);
  });
});
