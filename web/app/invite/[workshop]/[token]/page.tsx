import { z } from "zod";
import { AuthFrame } from "@/features/auth/auth-frame";
import { NewAccount } from "@/features/auth/sign-in";
import { invitationOf } from "@/server/auth/commands";
import { currentAccount, requireSignInMode } from "@/server/auth/pages";
import { readWorkshop } from "@/server/workshops/workshops";
import { PageLayout } from "@/ui/side-notes";

export const metadata = { title: "Invitation" };
export const dynamic = "force-dynamic";

export default async function InvitePage({ params }: { params: Promise<{ workshop: string; token: string }> }) {
  requireSignInMode();
  const read = z.object({ workshop: z.uuid(), token: z.string().max(60) }).safeParse(await params);
  const invitation = read.success ? await invitationOf(read.data.workshop, read.data.token) : null;
  const workshop = invitation && read.success ? await readWorkshop(read.data.workshop) : null;
  return (
    <AuthFrame>
      {invitation && workshop && read.success ? (
        <NewAccount
          title={`Join ${workshop.name}`}
          lead={`You are invited as ${invitation.name}, ${invitation.role}.`}
          command="accept"
          more={{ workshop: workshop.id, token: read.data.token }}
          name={invitation.name}
          to={`/w/${workshop.id}`}
          signedInAs={(await currentAccount())?.name ?? null}
        />
      ) : (
        <PageLayout title="This link has expired" lead="It was used already, or a week has passed. Ask for a new one.">
          <span />
        </PageLayout>
      )}
    </AuthFrame>
  );
}
