import { PageLayout } from "@/ui/side-notes";

/** How a phone is told to trust a certificate of the workshop's own. */
export const Trust = ({ print }: { print: string }) => (
  <PageLayout title="Let this device trust the workshop" lead="Once for each phone or tablet; afterwards its browser warns no more.">
    <ol className="sheet max-w-[720px] list-decimal space-y-3 pl-10">
      <li>
        <a className="act" href="/api/trust" download>
          Take the certificate
        </a>
      </li>
      <li>
        On Android: Settings, search for “CA certificate”, install from storage, choose the file. On iOS: open the file, Settings, “Profile downloaded”,
        install; then General, About, Certificate Trust Settings, and switch it on.
      </li>
      <li>
        Compare its fingerprint (SHA-256) with the one on the machine that Hearth Jar runs on, in <code>tls/authority.crt</code> of its data directory:
        <span className="figure mt-1 block text-[15px] break-all">{print}</span>
      </li>
    </ol>
    <p className="mt-4 max-w-[720px] text-soft">
      Whoever has the key of this authority could pretend to be any site to this device. It never leaves the workshop's machine; take the certificate off again
      when the device leaves the workshop.
    </p>
  </PageLayout>
);
