"use client";

import { useState } from "react";
import { STILL_IN, signOutDevice } from "@/log/sign-out";
import { Link, useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { Aside, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { type AuthField, AuthForm, callAuth } from "./auth-form";
import { Codes } from "./codes";

export interface SessionShown {
  id: string;
  browser: string;
  address: string;
  at: string;
  here: boolean;
}
const PASSWORD: AuthField = { name: "password", label: "Password", type: "password", autoComplete: "current-password" };

/** The browsers that are signed in, and ending one. */
function SignedIn({ sessions }: { sessions: SessionShown[] }) {
  const router = useRouter();
  const units = useUnits();
  const [message, setMessage] = useState("");
  return (
    <section className="sheet">
      <h2>Signed in</h2>
      <ul className="mt-2">
        {sessions.map((session) => (
          <li key={session.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line py-2">
            <span className="flex-1">
              {session.browser}
              <span className="text-soft">
                , from {session.address}, since {units.dayClock(session.at)}
              </span>
            </span>
            {session.here ? (
              <strong>this browser</strong>
            ) : (
              <button
                type="button"
                className="press"
                onClick={async () => {
                  const answer = await callAuth("end-session", { id: session.id });
                  setMessage(answer.ok ? "" : answer.message);
                  router.refresh();
                }}
              >
                End session
              </button>
            )}
          </li>
        ))}
      </ul>
      <FormMessage>{message}</FormMessage>
    </section>
  );
}

/** Setting a second factor up, or asking for it no more. */
function SecondFactor({ twoFactor }: { twoFactor: boolean }) {
  const router = useRouter();
  const [uri, setUri] = useState<{ text: string; picture: string } | null>(null);
  const secret = uri ? new URL(uri.text).searchParams.get("secret") : null;
  return (
    <section className="sheet">
      <h2>Two-factor sign-in</h2>
      {uri ? (
        <>
          <p className="mt-1">Scan this with your authenticator, then type the six digits it shows.</p>
          <img src={uri.picture} alt="Code for an authenticator" width={220} height={220} className="my-3 bg-white" />
          <p className="mb-2 text-[15px] text-soft">
            Or type this into it: <span className="figure break-all">{secret}</span>
          </p>
          <AuthForm
            command="second-factor"
            fields={[{ name: "code", label: "Six digits", inputMode: "numeric", autoComplete: "one-time-code" }]}
            button="Turn on two-factor sign-in"
            onDone={() => {
              setUri(null);
              router.refresh();
            }}
          />
        </>
      ) : twoFactor ? (
        <>
          <p className="my-1">Asked for whenever you sign in.</p>
          <AuthForm plain command="end-second-factor" fields={[PASSWORD]} button="Turn off two-factor sign-in" onDone={() => router.refresh()} />
        </>
      ) : (
        <>
          <p className="my-1">Six digits from an authenticator, besides the password. Recommended if the workshop can be reached over the internet.</p>
          <AuthForm
            plain
            command="begin-second-factor"
            fields={[PASSWORD]}
            button="Set up two-factor sign-in"
            onDone={(answer) => setUri({ text: String(answer.uri), picture: String(answer.picture) })}
          />
        </>
      )}
    </section>
  );
}

/** Another password. */
function OtherPassword() {
  const router = useRouter();
  const [changed, setChanged] = useState(false);
  return (
    <section className="sheet">
      <h2>Change password</h2>
      {changed ? <p className="my-1">✓ Password changed. All other sessions were ended.</p> : null}
      <AuthForm
        plain
        command="change-password"
        fields={[
          PASSWORD,
          { name: "fresh", label: "New password", type: "password", autoComplete: "new-password", hint: "At least 12 characters; a sentence works well." },
        ]}
        button="Save password"
        onDone={() => {
          setChanged(true);
          router.refresh();
        }}
      />
    </section>
  );
}

/** The account page: its sign-in methods, and the browsers that are signed in. */
export function Account(props: {
  name: string;
  email: string;
  twoFactor: boolean;
  sessions: SessionShown[];
  codesLeft: number;
  workshops: { id: string; name: string }[];
}) {
  const [message, setMessage] = useState("");
  const [codes, setCodes] = useState<string[] | null>(null);
  return (
    <PageLayout
      title="Your account"
      lead={`${props.name}, ${props.email}`}
      actions={
        <>
          {props.workshops.map((workshop) => (
            <Link key={workshop.id} className="press" href={`/w/${workshop.id}`}>
              Go to {workshop.name}
            </Link>
          ))}
          <button type="button" className="press" onClick={() => void signOutDevice("sign-out").then((left) => left || setMessage(STILL_IN))}>
            Sign out
          </button>
        </>
      }
      side={<Aside title="On a shared computer">Sign out when you leave. What this browser kept of the workshop is deleted.</Aside>}
    >
      {codes ? (
        <Codes codes={codes} onDone={() => setCodes(null)} to="I have them" />
      ) : (
        <div className="grid max-w-[820px] gap-6">
          <FormMessage>{message}</FormMessage>
          <SignedIn sessions={props.sessions} />
          <SecondFactor twoFactor={props.twoFactor} />
          <section className="sheet">
            <h2>Recovery codes</h2>
            <p className="my-1">{props.codesLeft === 0 ? "None is left." : `${props.codesLeft} left.`} Each lets you in once without the password.</p>
            <AuthForm plain command="fresh-codes" fields={[PASSWORD]} button="Generate new codes" onDone={(answer) => setCodes(answer.codes as string[])} />
          </section>
          <OtherPassword />
        </div>
      )}
    </PageLayout>
  );
}
