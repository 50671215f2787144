/**
 * Acts that make something. The same asked for again, by a second press or another button, is the act before: it gives
 * the id of what that made, as long as it stands.
 */
export class OneAct {
  private readonly made = new Map<string, Promise<string | null>>();

  /**
   * @param key what tells acts apart: all that goes into what is made
   * @param make resolves to the id of what it made, null where it could not
   */
  run(
    key: string,
    stands: (id: string) => Promise<boolean>,
    make: () => Promise<string | null>,
  ): Promise<string | null> {
    const act = this.after(this.made.get(key), stands, make);
    this.made.set(key, act);
    return act;
  }

  private async after(
    before: Promise<string | null> | undefined,
    stands: (id: string) => Promise<boolean>,
    make: () => Promise<string | null>,
  ): Promise<string | null> {
    const id = (await before) ?? null;
    return id !== null && (await stands(id)) ? id : make();
  }
}
