/** So long work goes on before it is looked whether something was asked meanwhile, in milliseconds. */
const SLICE_MS = 12;

/**
 * Long work in slices: whoever does it asks after each step. The answer comes at once while the slice lasts, and after
 * everything else that waits when it is over.
 */
export function slices(): () => Promise<void> | undefined {
  let until = performance.now() + SLICE_MS;
  return () => {
    if (performance.now() <= until) return undefined;
    return new Promise((resolve) =>
      setTimeout(() => {
        until = performance.now() + SLICE_MS;
        resolve();
      }),
    );
  };
}
