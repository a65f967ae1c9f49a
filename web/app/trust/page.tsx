import { X509Certificate } from "node:crypto";
import { readFileSync } from "node:fs";
import { notFound } from "next/navigation";
import { AuthFrame } from "@/features/auth/auth-frame";
import { Trust } from "@/features/auth/trust";

export const metadata = { title: "Trust this workshop" };
export const dynamic = "force-dynamic";

export default function TrustPage() {
  const file = process.env.HEARTH_TLS_AUTHORITY;
  if (!file) notFound();
  return (
    <AuthFrame>
      <Trust print={new X509Certificate(readFileSync(file)).fingerprint256} />
    </AuthFrame>
  );
}
