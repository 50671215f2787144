import { wrap, type Remote } from 'comlink';

/** What is asked of a worker that never came up: its script could not be fetched. */
export class Unfetched extends Error {
  constructor() {
    super('a worker could not be fetched');
  }
}

/** Said where a part of the application is missing: what happened, what is safe, what to do. */
export const UNFETCHED = 'A part of Loop Shelf could not be loaded. What you kept is safe. Try again.';

/**
 * What a worker offers. Where its script cannot be fetched every question fails: the remote alone would wait for ever.
 * Once it has answered, an error of its own ends nothing.
 */
export function remoteOf<T>(worker: Worker): Remote<T> {
  const broken = new Promise<never>((_, fail) => {
    const fails = (): void => fail(new Unfetched());
    worker.addEventListener('error', fails);
    worker.addEventListener('message', () => worker.removeEventListener('error', fails), { once: true });
  });
  // Whoever asks hears of it.
  broken.catch(() => undefined);
  const remote = wrap<T>(worker) as unknown as Record<string, (...args: unknown[]) => Promise<unknown>>;
  const asks = new Map<string, (...args: unknown[]) => Promise<unknown>>();
  return new Proxy(remote, {
    get(_, name) {
      // It is no promise, whoever waits for it.
      if (typeof name !== 'string' || name === 'then') return undefined;
      const ask = asks.get(name) ?? ((...args: unknown[]) => Promise.race([remote[name]?.(...args), broken]));
      asks.set(name, ask);
      return ask;
    },
  }) as unknown as Remote<T>;
}
