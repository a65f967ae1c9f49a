import { AuthFrame } from "@/features/auth/auth-frame";
import { NewPassword } from "@/features/auth/sign-in";
import { requireSignInMode } from "@/server/auth/pages";

export const metadata = { title: "A new password" };
export const dynamic = "force-dynamic";

export default async function NewPasswordPage({ searchParams }: { searchParams: Promise<{ token?: string }> }) {
  requireSignInMode();
  return (
    <AuthFrame>
      <NewPassword token={(await searchParams).token ?? ""} />
    </AuthFrame>
  );
}
