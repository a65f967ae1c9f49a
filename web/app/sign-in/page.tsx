import { AuthFrame } from "@/features/auth/auth-frame";
import { SignIn } from "@/features/auth/sign-in";
import { canMail } from "@/server/auth/mail";
import { currentDevice, requireSignInMode, safeRedirectPath } from "@/server/auth/pages";

export const metadata = { title: "Sign in" };
export const dynamic = "force-dynamic";

export default async function SignInPage({ searchParams }: { searchParams: Promise<{ to?: string }> }) {
  requireSignInMode();
  return (
    <AuthFrame>
      <SignIn to={safeRedirectPath((await searchParams).to)} canMail={canMail()} device={await currentDevice()} />
    </AuthFrame>
  );
}
