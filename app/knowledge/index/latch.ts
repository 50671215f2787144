/** Something that comes to be once, and is waited for. */
export class Latch {
  private let: () => void = () => undefined;
  readonly opened: Promise<void> = new Promise((resolve) => (this.let = resolve));
  /** It is so; telling it again changes nothing. */
  readonly open = (): void => this.let();

  /** Waits for it, and no longer than so many milliseconds. */
  async within(ms: number): Promise<void> {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const late = new Promise<void>((resolve) => (timer = setTimeout(resolve, ms)));
    await Promise.race([this.opened, late]);
    clearTimeout(timer);
  }
}
