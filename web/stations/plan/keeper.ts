/** What a writing gave: the version that it has now, or why it was refused. */
export type Written = { ok: true; value: { version: number } } | { ok: false; message: string };

/**
 * Writes what changes often one at a time, each on the version that the one before gave; what changed meanwhile is written next, and
 * what was overtaken never. A refusal stops it until something changes again.
 */
export class Keeper {
  private busy = false;
  private newest: string | null = null;

  constructor(
    private readonly write: (text: string, version: number) => Promise<Written>,
    private readonly tell: (state: { kept: boolean; said: string }) => void,
    private version: number,
    private written: string | null,
  ) {}

  /** Whether this is what was written last. */
  has(text: string): boolean {
    return text === this.written;
  }

  async put(text: string): Promise<void> {
    this.newest = text;
    if (this.busy) return;
    this.busy = true;
    while (this.newest !== null && this.newest !== this.written) {
      const one: string = this.newest;
      const out = await this.write(one, this.version);
      if (!out.ok) {
        this.tell({ kept: false, said: out.message });
        // What changed while it was refused is tried on its own account.
        if (this.newest === one) break;
        continue;
      }
      this.version = out.value.version;
      this.written = one;
      this.tell({ kept: one === this.newest, said: "" });
    }
    this.busy = false;
  }
}
