"use client";

import { ROLES, type Role } from "@hearth/core";
import type { DeviceShown, PersonShown } from "@/server/workshops/people";
import { Link } from "@/ui/address";
import { Aside, PageLayout } from "@/ui/side-notes";
import { Devices } from "./devices";
import { AddPerson, Person } from "./person";
import { WorkshopData } from "./workshop-data";

const MAY: Record<Role, string> = {
  owner: "Sees and changes everything, people and devices too.",
  editor: "Sees and changes everything but people and devices.",
  helper: "Works at bench, rack, inspect and burn, and sees no prices.",
  viewer: "Sees everything but people and devices, and changes nothing.",
};

/** Who works here, on what, and who changed what. */
export function PeoplePage(props: { asks: boolean; leavesAt: string | null; people: PersonShown[]; devices: DeviceShown[] }) {
  return (
    <PageLayout
      title="People and devices"
      lead={props.asks ? "People, devices and permissions." : "Nobody signs in on this machine, and no other machine can reach it."}
      actions={
        <Link className="press" href="/people/audit-log">
          Audit log
        </Link>
      }
      side={
        <>
          <Aside title="Permissions">
            <dl>
              {ROLES.toReversed().map((role) => (
                <div key={role}>
                  <dt className="font-semibold text-ink">{role}</dt>
                  <dd>{MAY[role]}</dd>
                </div>
              ))}
            </dl>
          </Aside>
          <Aside title="An account or a PIN">An account signs in from any browser. A PIN only says who is at a device of the workshop.</Aside>
        </>
      }
    >
      {props.asks ? null : (
        <p className="sheet mb-5 max-w-[820px]">
          For a phone at the bench, a helper on Saturday, or another machine: start Hearth Jar with <code>./hearth start --listen 0.0.0.0</code>. From then on
          everybody signs in.
        </p>
      )}
      <section className="max-w-[980px]">
        <h2>People</h2>
        <ul>
          {props.people.map((person) => (
            <Person key={person.id} person={person} open={props.asks} />
          ))}
        </ul>
        <AddPerson />
      </section>
      {props.asks ? <Devices devices={props.devices} /> : null}
      <WorkshopData leavesAt={props.leavesAt} />
    </PageLayout>
  );
}
