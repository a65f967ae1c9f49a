import { describe, expect, it } from "vitest";
import { METHODS, oddRequest } from "./request-line";

describe("a request line", () => {
  it("is let through with every method that something answers, on a path of this server", () => {
    for (const method of METHODS) for (const url of ["/", "/w/x?y=1", "/api/nothing", "/%20"]) expect(oddRequest(method, url)).toBeNull();
  });
  it.each([
    ["TRACE", "/", 405],
    ["CONNECT", "/", 405],
    ["BREW", "/w", 405],
    ["OPTIONS", "*", 400],
    ["GET", "http://elsewhere.example/w", 400],
    ["GET", "//elsewhere.example/w", 400],
    ["GET", "/%E0%A4%A", 400],
    ["GET", "/a%00b", 400],
    ["GET", "", 400],
  ])("is refused for %s %s with %i", (method, url, status) => {
    expect(oddRequest(method, url)?.status).toBe(status);
  });
});
