/** What is asked of an aggregate and of its checks to know what the program would refuse. */
interface Refusing<Event> {
  versionOf(kind: string): number;
  refusedEvents(events: readonly Event[]): { event: Event; refusal: { message: string } }[];
}
interface Checking {
  stored: { safeParse(entry: unknown): { success: boolean; error?: { issues: { message: string }[] } | undefined } };
}

/** Returns what the program would refuse of a log, entry by entry: its shape, or what it does to the state. Null if it would take all of it. */
export function refusalIn<Event extends { kind: string }>(aggregate: Refusing<Event>, { stored }: Checking, events: readonly Event[]): string | null {
  for (const event of events) {
    const parsed = stored.safeParse({ ...event, v: aggregate.versionOf(event.kind) });
    if (!parsed.success) return `${event.kind}: ${parsed.error?.issues[0]?.message}`;
  }
  const [first] = aggregate.refusedEvents(events);
  return first ? `${first.event.kind}: ${first.refusal.message}` : null;
}
