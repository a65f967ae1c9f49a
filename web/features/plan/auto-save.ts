/** The result of a save: the new version, or why it was rejected. */
export type Written = { ok: true; value: { version: number } } | { ok: false; message: string };

/**
 * Saves a text that changes often, one save at a time, each with the version that the one before returned. Only the newest text is saved next;
 * after a rejection nothing is saved until the text changes again.
 */
export class AutoSave {
  private busy = false;
  private newest: string | null = null;

  constructor(
    private readonly write: (text: string, version: number) => Promise<Written>,
    private readonly notify: (state: { kept: boolean; message: string }) => void,
    private version: number,
    private written: string | null,
  ) {}

  /** Returns whether this text is the one saved last. */
  isSaved(text: string): boolean {
    return text === this.written;
  }

  async save(text: string): Promise<void> {
    this.newest = text;
    if (this.busy) return;
    this.busy = true;
    while (this.newest !== null && this.newest !== this.written) {
      const text: string = this.newest;
      const out = await this.write(text, this.version);
      if (!out.ok) {
        this.notify({ kept: false, message: out.message });
        // What changed while it was refused is tried on its own account.
        if (this.newest === text) break;
        continue;
      }
      this.version = out.value.version;
      this.written = text;
      this.notify({ kept: text === this.newest, message: "" });
    }
    this.busy = false;
  }
}
