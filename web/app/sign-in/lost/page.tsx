import { AuthFrame } from "@/features/auth/auth-frame";
import { Lost } from "@/features/auth/sign-in";
import { canMail } from "@/server/auth/mail";
import { requireSignInMode } from "@/server/auth/pages";

export const metadata = { title: "Forgot password" };
export const dynamic = "force-dynamic";

export default function LostPage() {
  requireSignInMode();
  return (
    <AuthFrame>
      <Lost canMail={canMail()} />
    </AuthFrame>
  );
}
