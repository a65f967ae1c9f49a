import { describe, expect, it } from "vitest";
import { noteAddress } from "./address";

const noted = (from: string, headers: Record<string, string>, trusted: string[] = []) => {
  const request = { headers: { ...headers }, socket: { remoteAddress: from } };
  noteAddress(request as never, trusted);
  return request.headers as Record<string, string | undefined>;
};

describe("from where a request came", () => {
  it("is what the connection says, and never what a client says of itself", () => {
    const headers = noted("192.0.2.7", {
      "x-forwarded-for": "127.0.0.1",
      "x-forwarded-host": "elsewhere.example",
      "x-hearth-address": "127.0.0.1",
      "x-hearth-path": "/w/x",
      host: "shed.example",
    });
    expect(headers).toEqual({ host: "shed.example", "x-hearth-address": "192.0.2.7" });
    expect(noted("::ffff:192.0.2.7", {})["x-hearth-address"]).toBe("192.0.2.7");
  });

  it("through a trusted proxy is the last one before it, whatever a client put in front", () => {
    const chain = { "x-forwarded-for": "10.9.9.9, 198.51.100.4, 127.0.0.1", "x-forwarded-host": "shed.example", host: "127.0.0.1:4390" };
    expect(noted("127.0.0.1", chain, ["127.0.0.1"])).toEqual({ host: "shed.example", "x-hearth-address": "198.51.100.4" });
    expect(noted("127.0.0.1", { host: "a" }, ["127.0.0.1"])).toEqual({ host: "a", "x-hearth-address": "127.0.0.1" });
    expect(noted("192.0.2.7", chain, ["127.0.0.1"])).toEqual({ host: "127.0.0.1:4390", "x-hearth-address": "192.0.2.7" });
  });
});
