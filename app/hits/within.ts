/** A promise that is waited for so long, in milliseconds; then it fails with a `TimeoutError`. */
export function within<T>(ms: number, answer: Promise<T>): Promise<T> {
  return Promise.race([
    answer,
    new Promise<never>((_, reject) => setTimeout(() => reject(new DOMException('no answer', 'TimeoutError')), ms)),
  ]);
}
