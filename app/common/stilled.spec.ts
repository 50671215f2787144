import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { stilled, STILLNESS } from './stilled';

describe('what follows when the hand is still', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  function follow() {
    TestBed.configureTestingModule({ providers: [{ provide: STILLNESS, useValue: 100 }] });
    const source = signal<string | null>(null);
    const still = TestBed.runInInjectionContext(() => stilled(source));
    const set = (v: string | null): void => {
      source.set(v);
      TestBed.tick();
    };
    return { still, set };
  }

  it('is there at once after nothing, and waits while one edit follows another', () => {
    const { still, set } = follow();
    set('a');
    expect(still()).toBe('a');
    set('b');
    jest.advanceTimersByTime(60);
    set('c');
    jest.advanceTimersByTime(60);
    expect(still()).toBe('a');
    jest.advanceTimersByTime(40);
    expect(still()).toBe('c');
    set(null);
    expect(still()).toBeNull();
  });
  it('an edit taken back in time changes nothing', () => {
    const { still, set } = follow();
    set('a');
    set('b');
    set('a');
    jest.advanceTimersByTime(1000);
    expect(still()).toBe('a');
  });
  it('without a wait it is the thing itself', () => {
    const source = signal<string | null>('a');
    const still = TestBed.runInInjectionContext(() => stilled(source));
    source.set('b');
    expect(still()).toBe('b');
  });
});
