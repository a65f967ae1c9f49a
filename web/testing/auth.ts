import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { POST } from "@/app/api/auth/[command]/route";
import { hashOf } from "@/server/auth/secrets";

/** What a browser or another program asks of authentication, with the cookies that it was given. */
export class Visitor {
  readonly cookies = new Map<string, string>();
  constructor(readonly address = "192.0.2.10") {}

  headers(): Headers {
    const headers = new Headers({
      "content-type": "application/json",
      host: "127.0.0.1:4380",
      origin: "http://127.0.0.1:4380",
      "x-hearth-address": this.address,
    });
    if (this.cookies.size > 0) headers.set("cookie", [...this.cookies].map(([name, value]) => `${name}=${value}`).join("; "));
    return headers;
  }
  /** Keeps what an answer set. */
  took(answer: Response): Response {
    for (const cookie of answer.headers.getSetCookie()) {
      const [pair = ""] = cookie.split(";");
      const at = pair.indexOf("=");
      if (/max-age=0/i.test(cookie)) this.cookies.delete(pair.slice(0, at));
      else this.cookies.set(pair.slice(0, at), pair.slice(at + 1));
    }
    return answer;
  }
  async ask(
    command: string,
    given: object,
  ): Promise<{ status: number; body: Record<string, unknown> & { error?: { message: string; fields: object } }; answer: Response }> {
    const request = new Request(`http://127.0.0.1:4380/api/auth/${command}`, { method: "POST", headers: this.headers(), body: JSON.stringify(given) });
    const answer = this.took(await POST(request, { params: Promise.resolve({ command }) }));
    return { status: answer.status, body: await answer.clone().json(), answer };
  }
}

export const FIRST_CODE = "AAAA-BBBB-CCCC";

/** Turns sign-in on as a start with --listen does; gives the file that letters go into. */
export function openDoor(): { letters: string } {
  const letters = join(mkdtempSync(join(tmpdir(), "hearth-letters-")), "letters");
  Object.assign(process.env, {
    HEARTH_SIGN_IN: "on",
    HEARTH_PUBLIC_URL: "http://127.0.0.1:4380",
    HEARTH_SESSION_SECRET: "only for tests: a secret that is long enough",
    HEARTH_FIRST_CODE: hashOf(FIRST_CODE),
    HEARTH_MAIL: `file:${letters}`,
  });
  return { letters };
}
