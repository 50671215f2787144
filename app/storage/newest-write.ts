/**
 * Writes of one thing, one after the other. While one is under way the newest waits, and those between are left out.
 */
export class NewestWrite<T> {
  private waiting: { readonly value: T } | null = null;
  private writing: Promise<boolean> | null = null;

  constructor(private readonly write: (value: T) => Promise<boolean>) {}

  get underWay(): boolean {
    return this.writing !== null;
  }

  /** Resolves, when nothing waits any more, to whether the last was kept. */
  keep(value: T): Promise<boolean> {
    this.waiting = { value };
    this.writing ??= this.writeAll();
    return this.writing;
  }

  private async writeAll(): Promise<boolean> {
    let kept = true;
    while (this.waiting) {
      const { value } = this.waiting;
      this.waiting = null;
      kept = await this.write(value);
    }
    this.writing = null;
    return kept;
  }
}
