import { AuthFrame } from "@/features/auth/auth-frame";
import { Join } from "@/features/auth/sign-in";
import { requireSignInMode } from "@/server/auth/pages";

export const metadata = { title: "Join this device" };
export const dynamic = "force-dynamic";

export default async function JoinPage({ searchParams }: { searchParams: Promise<{ code?: string; cut?: string }> }) {
  requireSignInMode();
  const { code = "", cut } = await searchParams;
  return (
    <AuthFrame>
      <Join code={/^[\w-]{1,20}$/.test(code) ? code : ""} cut={cut === "1"} secure={Boolean(process.env.HEARTH_TLS_AUTHORITY)} />
    </AuthFrame>
  );
}
