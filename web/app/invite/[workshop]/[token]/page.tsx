import { z } from "zod";
import { invitationOf } from "@/server/door/acts";
import { accountHere, atTheDoor } from "@/server/door/pages";
import { readWorkshop } from "@/server/workshops";
import { DoorFrame } from "@/stations/door/door-frame";
import { NewAccount } from "@/stations/door/sign-in";
import { Screen } from "@/ui/margin";

export const metadata = { title: "Invitation" };
export const dynamic = "force-dynamic";

export default async function InvitePage({ params }: { params: Promise<{ workshop: string; token: string }> }) {
  atTheDoor();
  const read = z.object({ workshop: z.uuid(), token: z.string().max(60) }).safeParse(await params);
  const invitation = read.success ? await invitationOf(read.data.workshop, read.data.token) : null;
  const workshop = invitation && read.success ? await readWorkshop(read.data.workshop) : null;
  return (
    <DoorFrame>
      {invitation && workshop && read.success ? (
        <NewAccount
          title={`Come into ${workshop.name}`}
          lead={`You are asked in as ${invitation.name}, ${invitation.role}.`}
          act="accept"
          more={{ workshop: workshop.id, token: read.data.token }}
          name={invitation.name}
          to={`/w/${workshop.id}`}
          signedInAs={(await accountHere())?.name ?? null}
        />
      ) : (
        <Screen title="This link holds no longer" lead="It has been used, or a week has passed. Ask for a new one.">
          <span />
        </Screen>
      )}
    </DoorFrame>
  );
}
