import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Change } from "./live";

/** One browser: its tabs share locks and channels, and each may open a stream to the server. */
class Browser {
  streams: { url: string; onmessage?: (message: { data: string }) => void; onerror?: () => void; readyState: number; closed: boolean }[] = [];
  private channels: { name: string; onmessage?: (message: { data: Change }) => void; closed: boolean }[] = [];
  private held = new Map<string, Promise<unknown>>();

  /** What a tab that is opened now finds around it. */
  tab() {
    const browser = this;
    vi.stubGlobal(
      "EventSource",
      class {
        closed = false;
        readyState = 1;
        constructor(readonly url: string) {
          browser.streams.push(this);
        }
        close() {
          this.closed = true;
        }
      },
    );
    vi.stubGlobal(
      "BroadcastChannel",
      class {
        closed = false;
        onmessage?: (message: { data: Change }) => void;
        constructor(readonly name: string) {
          browser.channels.push(this);
        }
        postMessage(data: Change) {
          for (const channel of browser.channels) if (channel !== this && channel.name === this.name && !channel.closed) channel.onmessage?.({ data });
        }
        close() {
          this.closed = true;
        }
      },
    );
    vi.stubGlobal("navigator", {
      locks: {
        request: (name: string, ...rest: unknown[]) => {
          const run = rest.at(-1) as (lock: object | null) => unknown;
          const busy = browser.held.get(name);
          if (busy && rest.length > 1) return Promise.resolve(run(null));
          const mine = (busy ?? Promise.resolve()).then(() => run({}));
          browser.held.set(name, mine);
          return mine;
        },
      },
    });
    vi.resetModules();
    return import("./live");
  }
  /** The server tells the stream that is open. */
  tell(change: Change) {
    for (const stream of this.streams) if (!stream.closed) stream.onmessage?.({ data: JSON.stringify(change) });
  }
}

let browser: Browser;
beforeEach(() => {
  vi.useFakeTimers();
  browser = new Browser();
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
const settled = () => vi.advanceTimersByTimeAsync(0);

describe("what others enter", () => {
  it("reaches every tab of a browser over one stream", async () => {
    const heard: string[] = [];
    const first = await browser.tab();
    first.subscribeToOthers("w", (change) => heard.push(`first ${change.batch ?? change.workshop}`));
    await settled();
    const second = await browser.tab();
    second.subscribeToOthers("w", (change) => heard.push(`second ${change.batch ?? change.workshop}`));
    await settled();
    expect(browser.streams.map((stream) => stream.url)).toEqual(["/api/workshops/w/live"]);
    // A tab that follows may have missed something while it was opening.
    expect(heard).toEqual(["second *"]);
    browser.tell({ workshop: "w", batch: "b" });
    expect(heard.slice(1).sort()).toEqual(["first b", "second b"]);
    expect(first.heardRecently(1_000, ["bench"])).toBe(true);
  });

  it("is heard until a view leaves, and of the workshop that the page shows now", async () => {
    const heard: Change[] = [];
    const page = await browser.tab();
    const leave = page.subscribeToOthers("w", (change) => heard.push(change));
    await settled();
    leave();
    browser.tell({ workshop: "w" });
    expect(heard).toEqual([]);
    // The page goes on to another workshop: the stream of the first is closed, and the lead is given back.
    page.markRead("other", "mark.3");
    page.subscribeToOthers("other", (change) => heard.push(change));
    await vi.advanceTimersByTimeAsync(2_000);
    expect(browser.streams.map((stream) => [stream.url, stream.closed])).toEqual([
      ["/api/workshops/w/live", true],
      ["/api/workshops/other/live?since=mark.3", false],
    ]);
    browser.tell({ workshop: "other" });
    expect(heard).toEqual([{ workshop: "other" }]);
  });

  it("is asked again where the stream was refused, as while the database is away, and left to the browser where it only broke off", async () => {
    vi.stubGlobal("fetch", async () => Response.json({ asks: false, cut: false, in: false }));
    const heard: Change[] = [];
    const page = await browser.tab();
    page.subscribeToOthers("w", (change) => heard.push(change));
    await settled();
    const [first] = browser.streams;
    first?.onerror?.();
    await vi.advanceTimersByTimeAsync(5_000);
    expect(browser.streams).toHaveLength(1);
    if (first) first.readyState = 2;
    first?.onerror?.();
    await vi.advanceTimersByTimeAsync(2_500);
    expect(browser.streams).toHaveLength(2);
    browser.streams[1]?.onmessage?.({ data: JSON.stringify({ workshop: "w" }) });
    expect(heard).toEqual([{ workshop: "w" }]);
  });
});
