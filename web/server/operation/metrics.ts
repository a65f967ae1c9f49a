import { collectDefaultMetrics, Gauge, Histogram, Registry } from "prom-client";
import { poolCounts } from "@/data/client";
import { processSingleton } from "@/data/process-singleton";
import { requestTimes } from "@/serve/request-times";
import { listenerCount } from "@/server/http/change-stream";

function make() {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry });
  const requests = new Histogram({
    name: "hearth_request_seconds",
    help: "Time from a request to the end of its answer, by route and status.",
    labelNames: ["what", "method", "status"],
    buckets: [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10],
    registers: [registry],
  });
  const state = (name: string, help: string, read: () => number) =>
    new Gauge({
      name,
      help,
      registers: [registry],
      collect() {
        this.set(read());
      },
    });
  state("hearth_database_connections", "Connections of this server to the database.", () => poolCounts().total);
  state(
    "hearth_database_waiting",
    "Requests that wait for a connection. If this is above 0 for long, raise HEARTH_CONNECTIONS or add a server.",
    () => poolCounts().waiting,
  );
  state("hearth_listening_pages", "Pages that hear changes from this server.", listenerCount);
  return { registry, requests };
}

const metrics = () => processSingleton("metrics", make);

/** Returns what was asked for, without a name or an id. */
const whatOf = (url: string): string =>
  /^\/api\/workshops\/[^/]+\/(batches|trials|orders)\/[^/]+\/events$/.test(url)
    ? "entry"
    : /^\/api\/workshops\/[^/]+\/live$/.test(url)
      ? "live"
      : url.startsWith("/api/auth")
        ? "auth"
        : url.startsWith("/api/")
          ? "api"
          : /^\/(_next|worker\.js)/.test(url)
            ? "file"
            : "page";

/** Measures requests from now on. */
export function measureRequests(): void {
  requestTimes().measure = (method, url) => {
    const what = whatOf(url.split("?")[0] ?? "");
    // A stream lasts as long as its page is open.
    if (what === "live") return null;
    const end = metrics().requests.startTimer({ what, method });
    return (status) => end({ status: `${Math.floor(status / 100)}xx` });
  };
}

/** Returns the figures of this server, in the common text format. */
export const writtenMetrics = async (): Promise<{ text: string; type: string }> => ({
  text: await metrics().registry.metrics(),
  type: metrics().registry.contentType,
});
