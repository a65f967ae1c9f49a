import { afterEach, expect, it } from "vitest";
import { GET } from "@/app/api/metrics/route";
import { requestTimes } from "@/serve/request-times";
import { measureRequests } from "./metrics";

const asked = (headers: Record<string, string>) => GET(new Request("http://127.0.0.1:4380/api/metrics", { headers }));
afterEach(() => {
  delete process.env.HEARTH_METRICS_TOKEN;
  delete process.env.HEARTH_TRUSTED_PROXIES;
});

it("figures are for this machine, or for who sends the token; through a proxy only with it", async () => {
  expect((await asked({ "x-hearth-address": "192.0.2.7" })).status).toBe(401);
  expect((await asked({})).status).toBe(401);
  expect((await asked({ "x-hearth-address": "127.0.0.1" })).status).toBe(200);
  process.env.HEARTH_TRUSTED_PROXIES = "127.0.0.1";
  expect((await asked({ "x-hearth-address": "127.0.0.1" })).status).toBe(401);
  expect((await asked({ "x-hearth-address": "192.0.2.7", authorization: "Bearer wrong" })).status).toBe(401);
  process.env.HEARTH_METRICS_TOKEN = "a token for the watch";
  expect((await asked({ "x-hearth-address": "192.0.2.7", authorization: "Bearer wrong" })).status).toBe(401);
  expect((await asked({ "x-hearth-address": "192.0.2.7", authorization: "Bearer a token for the watch" })).status).toBe(200);
});

it("they are in the common text format, by what was asked, and name nobody", async () => {
  const id = "0190c0de-0008-7000-8000-000000000006";
  measureRequests();
  for (const [method, url, statusCode] of [
    ["POST", `/api/workshops/${id}/batches/${id}/events`, 200],
    ["GET", `/w/${id}/bench?not=shelf`, 200],
    ["POST", "/api/auth/sign-in", 429],
    ["GET", `/api/workshops/${id}/live`, 200],
  ] as const) {
    requestTimes().measure(method, url)?.(statusCode);
  }
  const answer = await asked({ "x-hearth-address": "127.0.0.1" });
  expect(answer.headers.get("content-type")).toMatch(/^text\/plain; version=0\.0\.4/);
  const text = await answer.text();
  for (const line of [
    'hearth_request_seconds_count{what="entry",method="POST",status="2xx"} 1',
    'hearth_request_seconds_count{what="page",method="GET",status="2xx"} 1',
    'hearth_request_seconds_count{what="auth",method="POST",status="4xx"} 1',
    "hearth_database_waiting 0",
    "hearth_listening_pages 0",
  ])
    expect(text).toContain(line);
  expect(text).not.toContain(id);
  // Every line is a comment or a sample (the format's own grammar, version 0.0.4; from memory).
  for (const line of text.trim().split("\n")) expect(line).toMatch(/^(# (HELP|TYPE) \w+ .*|\w+(\{[^}]*\})? (-?[\d.e+-]+|[+-]?(NaN|Nan|Inf))|)$/);
});
