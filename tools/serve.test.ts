import { createServer } from "node:net";
import { describe, expect, it } from "vitest";
import { freePort } from "./processes";
import { refuseOtherAddresses } from "./serve";

describe("where the server listens", () => {
  it("refuses any address but this machine's own, and says why", () => {
    for (const host of ["0.0.0.0", "192.168.1.20", "::", "workshop.example"])
      expect(() => refuseOtherAddresses(host)).toThrow(/will not listen on .*with a sign-in/);
    for (const host of [undefined, "127.0.0.1", "localhost", "::1"]) expect(() => refuseOtherAddresses(host)).not.toThrow();
  });

  it("takes the next port where the one ordered is taken", async () => {
    const first = await freePort();
    const holder = createServer();
    await new Promise<void>((resolve) => holder.listen(first, "127.0.0.1", resolve));
    expect(await freePort(first)).toBeGreaterThan(first);
    await new Promise((resolve) => holder.close(resolve));
  });
});
