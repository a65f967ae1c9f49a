"use client";

import { useEffect, useState } from "react";
import { clearDevice, wipedUnsent } from "@/log/sign-out";
import { forgetPages } from "@/offline/offline";
import { Link } from "@/ui/address";
import { Aside, PageLayout } from "@/ui/side-notes";
import { type AuthField, AuthForm } from "./auth-form";
import { Codes } from "./codes";

const MAIL: AuthField = { name: "email", label: "Email", type: "email", autoComplete: "username" };
const PASSWORD: AuthField = { name: "password", label: "Password", type: "password", autoComplete: "current-password" };
const NEW_PASSWORD: AuthField = {
  name: "password",
  label: "Password",
  type: "password",
  autoComplete: "new-password",
  hint: "At least 12 characters; a sentence works well.",
};
const NAME: AuthField = { name: "name", label: "Your first name", autoComplete: "given-name" };

/** Whole anew: nothing of who was here before stays on the page. */
const go = (to: string) => {
  forgetPages();
  location.assign(to);
};

/** The sign-in page: with an account, or as one of the people of a joined device. */
export function SignIn({ to, canMail, device }: { to: string; canMail: boolean; device: { name: string; people: { id: string; name: string }[] } | null }) {
  const [second, setSecond] = useState(false);
  if (device) return <WhoWorks to={to} device={device} />;
  return (
    <PageLayout
      title="Sign in"
      lead="To the workshops that you work in."
      side={
        <>
          <Aside title="A phone at the bench">
            A phone or tablet of the workshop needs no account: <Link href="/join">it joins by a code</Link> that an owner shows under People and devices.
          </Aside>
          <Aside title="New here?">An owner sends you a link. Open it, and choose a password.</Aside>
        </>
      }
    >
      <section className="sheet max-w-[560px]">
        {second ? (
          <AuthForm
            command="second-factor"
            fields={[
              { name: "code", label: "Code of your authenticator", autoComplete: "one-time-code", hint: "Six digits, or one of the codes kept for this." },
            ]}
            button="Continue"
            onDone={() => go(to)}
          />
        ) : (
          <AuthForm command="sign-in" fields={[MAIL, PASSWORD]} button="Sign in" onDone={(answer) => (answer.secondFactor ? setSecond(true) : go(to))} />
        )}
      </section>
      <p className="mt-4">
        <Link href="/sign-in/lost">{canMail ? "Forgot password?" : "Forgot password? Use a recovery code."}</Link>
      </p>
    </PageLayout>
  );
}

/** On a device of the workshop: who works here, by a PIN. Large: gloves may be on. */
function WhoWorks({ to, device }: { to: string; device: { name: string; people: { id: string; name: string }[] } }) {
  const [who, setWho] = useState<string | null>(device.people.length === 1 ? (device.people[0]?.id ?? null) : null);
  const person = device.people.find((item) => item.id === who);
  return (
    <PageLayout title="Who works here?" lead={`On ${device.name}. Entries are recorded under this name.`} gloved>
      {device.people.length === 0 ? <p className="sheet max-w-[560px]">Nobody has a PIN yet. An owner sets one under People and devices.</p> : null}
      <ul className="flex max-w-[720px] flex-wrap gap-3">
        {device.people.map((item) => (
          <li key={item.id}>
            <button
              type="button"
              className={`press min-h-[72px] min-w-[150px] text-[21px] ${item.id === who ? "!bg-ink !text-sheet" : ""}`}
              aria-pressed={item.id === who}
              onClick={() => setWho(item.id)}
            >
              {item.name}
            </button>
          </li>
        ))}
      </ul>
      {person ? (
        <section className="sheet mt-5 max-w-[460px]" key={person.id}>
          <AuthForm
            command="person"
            more={{ personId: person.id }}
            fields={[{ name: "pin", label: `PIN of ${person.name}`, type: "password", inputMode: "numeric", autoComplete: "off" }]}
            button={`Work as ${person.name}`}
            onDone={() => go(to)}
          />
        </section>
      ) : null}
    </PageLayout>
  );
}

/** Signs in without the password: by a printed code, or by a letter where a mail server is set. */
export function Lost({ canMail }: { canMail: boolean }) {
  const [done, setDone] = useState("");
  if (done)
    return (
      <PageLayout title="Forgot password">
        <p className="sheet max-w-[560px]">{done}</p>
        <p className="mt-4">
          <Link href="/sign-in">Sign in</Link>
        </p>
      </PageLayout>
    );
  return (
    <PageLayout title="Forgot password" lead="A recovery code lets you in once, to set a new password. All other sessions end.">
      <section className="sheet max-w-[560px]">
        <AuthForm
          command="recover"
          fields={[MAIL, { name: "code", label: "Recovery code", autoComplete: "off" }, { ...NEW_PASSWORD, label: "New password" }]}
          button="Set the new password"
          onDone={() => setDone("The new password is set. Sign in with it. If you used an authenticator, set it up again.")}
        />
      </section>
      {canMail ? (
        <section className="sheet mt-5 max-w-[560px]">
          <h2 className="mb-2">Or by email</h2>
          <AuthForm
            plain
            command="forgot"
            fields={[MAIL]}
            button="Send me a link"
            onDone={() => setDone("If this address has an account, a link was sent. It is valid for one hour.")}
          />
        </section>
      ) : (
        <p className="mt-4 max-w-[560px] text-soft">No code left? An owner of the workshop can send you a new link; the records keep your name.</p>
      )}
    </PageLayout>
  );
}

export function NewPassword({ token }: { token: string }) {
  return (
    <PageLayout title="A new password">
      <section className="sheet max-w-[560px]">
        <AuthForm
          command="new-password"
          more={{ token }}
          fields={[{ ...NEW_PASSWORD, label: "New password" }]}
          button="Set password"
          onDone={() => go("/sign-in")}
        />
      </section>
    </PageLayout>
  );
}

/** The form that creates the first account of this machine, or one by an invitation. */
export function NewAccount(props: {
  title: string;
  lead: string;
  command: "first" | "accept";
  more?: object;
  asksCode?: boolean;
  name?: string;
  to: string;
  signedInAs?: string | null;
}) {
  const [codes, setCodes] = useState<string[] | null>(null);
  if (codes)
    return (
      <PageLayout title={props.title}>
        <Codes codes={codes} onDone={() => go(props.to)} to="I have them: go to the workshop" />
      </PageLayout>
    );
  const fields: AuthField[] = [
    ...(props.asksCode ? [{ name: "code", label: "Code that was printed", autoComplete: "off", hint: "It is printed where Hearth Jar was started." }] : []),
    { ...NAME, initial: props.name ?? "" },
    MAIL,
    NEW_PASSWORD,
  ];
  return (
    <PageLayout
      title={props.title}
      lead={props.lead}
      side={<Aside title="What is kept">Your name, address and a hash of the password, on the workshop's own server. Nothing is sent anywhere else.</Aside>}
    >
      <section className="sheet max-w-[560px]">
        {props.signedInAs ? (
          <AuthForm
            command={props.command}
            {...(props.more ? { more: props.more } : {})}
            fields={[]}
            button={`Join as ${props.signedInAs}`}
            onDone={() => go(props.to)}
          />
        ) : (
          <AuthForm
            command={props.command}
            {...(props.more ? { more: props.more } : {})}
            fields={fields}
            button="Create account"
            onDone={(answer) => (Array.isArray(answer.codes) ? setCodes(answer.codes as string[]) : go(props.to))}
          />
        )}
      </section>
      {props.command === "accept" && !props.signedInAs ? (
        <p className="mt-4 text-soft">
          Already an account here? <Link href="/sign-in">Sign in first</Link>, then open the link again.
        </p>
      ) : null}
    </PageLayout>
  );
}

/** Joins a phone or tablet to the workshop by its code. */
export function Join({ code, cut, secure }: { code: string; cut: boolean; secure: boolean }) {
  const [unsent, setUnsent] = useState<string[]>([]);
  // Once more, on a page that nothing kept stands behind: what was being read when it was cut off may have been put back.
  useEffect(() => {
    if (!cut) return;
    setUnsent(wipedUnsent());
    void clearDevice();
  }, [cut]);
  return (
    <PageLayout
      title="Join this device"
      lead="Enter the code from the owner's screen. It is valid for ten minutes, for one use."
      gloved
      side={
        secure ? (
          <Aside title="A browser warning for this address?">
            This workshop uses its own certificate. <a href="/trust">How to trust it on this device.</a>
          </Aside>
        ) : undefined
      }
    >
      {cut ? (
        <div className="sheet mb-5 max-w-[560px]">
          <p>This device's access to its workshop was revoked, and what it kept was wiped.</p>
          {unsent.length > 0 ? (
            <>
              <p className="mt-2 font-semibold">
                {unsent.length === 1 ? "1 entry that was not sent was wiped with it" : `${unsent.length} entries that were not sent were wiped with it`}. Tell
                the workshop, so that {unsent.length === 1 ? "it can be" : "they can be"} logged again:
              </p>
              <ul className="list-disc pl-5">
                {unsent.map((text, index) => (
                  <li key={`${index} ${text}`}>{text}</li>
                ))}
              </ul>
            </>
          ) : null}
        </div>
      ) : null}
      <section className="sheet max-w-[560px]">
        <AuthForm
          command="join"
          fields={[
            { name: "code", label: "Code", initial: code, autoComplete: "off", hint: "Eight characters. Capitals and dashes do not matter." },
            {
              name: "name",
              label: "Name of this device",
              optional: true,
              autoComplete: "off",
              hint: "Leave empty to keep the name from the invitation.",
            },
          ]}
          button="Join"
          onDone={(answer) => go(`/w/${String(answer.workshop)}/bench`)}
        />
      </section>
    </PageLayout>
  );
}
