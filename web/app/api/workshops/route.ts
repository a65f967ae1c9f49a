import { createWriteStream } from "node:fs";
import { mkdtemp, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { checkHostAndOrigin, SECURITY_HEADERS } from "@/server/auth/request-guard";
import { accountOf } from "@/server/auth/session";
import { requiresSignIn } from "@/server/auth/sign-in-mode";
import { errorResponse, handleRequest } from "@/server/http/respond";
import { faultOf, logger } from "@/server/operation/logger";
import { importWorkshop, MAX_COMPRESSED_BYTES } from "@/server/workshops/import-workshop";

export const dynamic = "force-dynamic";

const TOO_LARGE = "This file is larger than 4 GB, and no workshop's export is.";

/** Ends the upload where more comes than an export can have. */
async function* atMost(body: AsyncIterable<Uint8Array>, limit: number): AsyncGenerator<Uint8Array> {
  let size = 0;
  for await (const chunk of body) {
    size += chunk.byteLength;
    if (size > limit) throw new RangeError(TOO_LARGE);
    yield chunk;
  }
}

/**
 * Reads a whole workshop from its export, sent as the body. Answers with lines of JSON while it works: `{"share":0.4}`, and last `{"ok":true,"id":…,"name":…}` or
 * `{"ok":false,"message":…}`.
 */
export function POST(request: Request): Promise<Response> {
  return handleRequest(async () => {
    const stranger = checkHostAndOrigin("POST", request.headers.get("host") ?? "", request.headers.get("origin"));
    if (stranger) return errorResponse(stranger.status, stranger.message);
    const account = requiresSignIn() ? await accountOf(request.headers) : null;
    if (requiresSignIn() && !account) return errorResponse(401, "Sign in with an account first.");
    if (Number(request.headers.get("content-length") ?? 0) > MAX_COMPRESSED_BYTES) return errorResponse(413, TOO_LARGE);
    const folder = await mkdtemp(join(tmpdir(), "hearth-import-"));
    const discard = () => rm(folder, { recursive: true, force: true });
    const path = join(folder, "workshop");
    const file = createWriteStream(path, { mode: 0o600 });
    try {
      await pipeline(Readable.from(atMost((request.body ?? []) as AsyncIterable<Uint8Array>, MAX_COMPRESSED_BYTES)), file);
    } catch (error) {
      await discard();
      if (error instanceof RangeError) return errorResponse(413, error.message);
      throw error;
    }
    const encoder = new TextEncoder();
    const body = new ReadableStream<Uint8Array>({
      async start(controller) {
        const tell = (line: object) => {
          try {
            controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
          } catch {
            // Nobody listens any more; what was begun is finished all the same.
          }
        };
        let told = -1;
        try {
          const outcome = await importWorkshop(path, file.bytesWritten, account, (share) => {
            const percent = Math.floor(share * 100);
            if (percent === told) return;
            told = percent;
            tell({ share: percent / 100 });
          });
          tell(outcome.ok ? { ok: true, ...outcome.value } : { ok: false, message: outcome.message });
        } catch (error) {
          logger().error({ fault: faultOf(error) }, "importing a workshop failed");
          tell({ ok: false, message: "Something went wrong here. Nothing was read in. Try again; if it stays, look at the server's output." });
        } finally {
          await discard();
          try {
            controller.close();
          } catch {
            // Closed by who listened.
          }
        }
      },
    });
    return new Response(body, { headers: { ...SECURITY_HEADERS, "content-type": "application/x-ndjson; charset=utf-8", "cache-control": "no-store" } });
  });
}
