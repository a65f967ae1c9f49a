import { describe, expect, it, vi } from "vitest";
import { logger } from "@/server/operation/logger";
import { readBody } from "./body";
import { handleRequest } from "./respond";

/** A request whose length nobody announces. */
const streamed = (chunks: number, size: number) => {
  let left = chunks;
  const pulled = { chunks: 0 };
  const body = new ReadableStream<Uint8Array>({
    pull(controller) {
      if (left-- === 0) controller.close();
      else {
        pulled.chunks += 1;
        controller.enqueue(new Uint8Array(size).fill(97));
      }
    },
  });
  return { request: new Request("http://127.0.0.1/", { method: "POST", body, duplex: "half" } as RequestInit), pulled };
};

describe("reading a body", () => {
  it("gives the text up to the limit", async () => {
    expect(await readBody(streamed(4, 10).request, 40)).toBe("a".repeat(40));
    expect(await readBody(new Request("http://127.0.0.1/", { method: "POST", body: "12,5 °C" }), 100)).toBe("12,5 °C");
    expect(await readBody(new Request("http://127.0.0.1/"), 100)).toBe("");
  });

  it("stops at the limit instead of taking in the whole, announced or not", async () => {
    const { request, pulled } = streamed(1_000, 1_024);
    expect(await readBody(request, 10 * 1_024)).toBeNull();
    expect(pulled.chunks).toBeLessThan(20);
    const announced = new Request("http://127.0.0.1/", { method: "POST", body: "x", headers: { "content-length": "99999999" } });
    expect(await readBody(announced, 1_000)).toBeNull();
  });
});

describe("faults behind a route", () => {
  it("are a 503 while the database is away, and a 500 that gives nothing away otherwise", async () => {
    const away = await handleRequest(() => Promise.reject(Object.assign(new Error("connect"), { code: "ECONNREFUSED" })));
    expect(away.status).toBe(503);
    expect(((await away.json()) as { error: { message: string } }).error.message).toMatch(/What you typed is kept/);
    const logged = vi.spyOn(logger(), "error").mockImplementation(() => undefined);
    const broken = await handleRequest(() => Promise.reject(new Error("secret path /var/lib")));
    expect(broken.status).toBe(500);
    expect(await broken.text()).not.toContain("secret");
    expect(logged).toHaveBeenCalled();
    logged.mockRestore();
  });
});
