import { PageLayout } from "@/ui/side-notes";

/** Explains how a phone is made to trust the workshop's own certificate. */
export const Trust = ({ print }: { print: string }) => (
  <PageLayout title="Trust the workshop's certificate" lead="Once on each phone or tablet; then its browser shows no more warnings.">
    <ol className="sheet max-w-[720px] list-decimal space-y-3 pl-10">
      <li>
        <a className="action-button" href="/api/trust" download>
          Download certificate
        </a>
      </li>
      <li>
        On Android: Settings, search for “CA certificate”, install from storage, choose the file. On iOS: open the file, Settings, “Profile downloaded”,
        install; then General, About, Certificate Trust Settings, and switch it on.
      </li>
      <li>
        Compare its fingerprint (SHA-256) with the one on the server, in <code>tls/authority.crt</code> of its data directory:
        <span className="figure mt-1 block text-[15px] break-all">{print}</span>
      </li>
    </ol>
    <p className="mt-4 max-w-[720px] text-soft">
      Anyone with the key of this certificate authority could impersonate any site to this device. The key never leaves the server. Remove the certificate when
      the device leaves the workshop.
    </p>
  </PageLayout>
);
