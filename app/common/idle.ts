/** How long a task may wait for the page to be idle before it is done all the same, in milliseconds. */
const PATIENCE = 600;

/** How long a slice of long work may take, in milliseconds: half a frame, so that the page stays alive. */
const SLICE = 8;

/** Runs a task between frames, when nothing else wants to. Gives back what calls it off. */
export function whenIdle(task: () => void): () => void {
  if (typeof requestIdleCallback === 'function') {
    const id = requestIdleCallback(task, { timeout: PATIENCE });
    return () => cancelIdleCallback(id);
  }
  const id = setTimeout(task);
  return () => clearTimeout(id);
}

/** Resolves in a task of its own, between which the browser may draw and hear the player. */
export function nextTask(): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve));
}

/**
 * Goes through a list in short slices, the first of them at once, and says when it is over. Gives back what calls it
 * off.
 */
export function inSlices<T>(items: readonly T[], each: (item: T) => void, over: () => void): () => void {
  let next = 0;
  let callOff = (): void => undefined;
  const slice = (): void => {
    const until = performance.now() + SLICE;
    for (; next < items.length && performance.now() < until; next++) {
      const item = items[next];
      if (item !== undefined) each(item);
    }
    if (next < items.length) callOff = whenIdle(slice);
    else over();
  };
  slice();
  return () => callOff();
}

/** How long steps of one drawing may follow each other before the page is let in, in milliseconds. */
const DRAWING = 24;

/**
 * Runs a work that stops to breathe wherever it can (`yield`): the first steps at once, what does not fit into a frame
 * between the next ones. Says what came out, or what went wrong. Gives back what calls it off.
 */
export function inSteps<T>(
  steps: Iterator<void, T>,
  over: (result: T) => void,
  failed: (error: unknown) => void,
): () => void {
  let callOff = (): void => undefined;
  const go = (): void => {
    const until = performance.now() + DRAWING;
    try {
      for (;;) {
        const step = steps.next();
        if (step.done) {
          over(step.value);
          return;
        }
        if (performance.now() >= until) break;
      }
    } catch (error) {
      failed(error);
      return;
    }
    callOff = whenIdle(go);
  };
  go();
  return () => callOff();
}
