"use client";

import { Command } from "cmdk";
import { Dialog } from "radix-ui";
import { useCallback, useEffect, useState } from "react";
import { useWorkshop } from "@/log/workshop";
import { findThings } from "@/server/workshops/find-command";
import { useRouter } from "@/ui/address";
import { GLOSSARY } from "@/ui/glossary";
import type { Section } from "@/ui/section";

type Found = { kind: string; name: string; path: string };
/** What can be begun from anywhere. */
const ACTIONS: { name: string; path: string }[] = [
  { name: "Plan a batch", path: "/plan" },
  { name: "What can I make?", path: "/plan/fill" },
  { name: "Demand, with due dates", path: "/plan/wanted" },
  { name: "Day schedule", path: "/plan/day" },
  { name: "Enter a past batch", path: "/plan/past" },
  { name: "Import demand", path: "/shelf/file?part=wanted" },
  { name: "Make a formula", path: "/formulas/new" },
  { name: "Make a product", path: "/products/new" },
  { name: "Make a process", path: "/formulas/processes/new" },
  { name: "Import and export the shelf", path: "/shelf/file" },
  { name: "Low stock", path: "/shelf?low=1" },
  { name: "Import a record", path: "/records/import" },
  { name: "The year, month by month", path: "/records/year" },
  { name: "Wax scoreboard", path: "/findings/scoreboard" },
  { name: "What is proven", path: "/burn/proven" },
  { name: "Import a notebook: past batches, burn notes, recipes", path: "/records/notebook" },
  { name: "Search the record, trace a lot or a jar", path: "/findings/trace" },
  { name: "Two batches or groups side by side", path: "/findings/compare" },
  { name: "Run charts", path: "/findings/charts" },
  { name: "Scent throw by wax, fragrance, load, wick and age", path: "/findings/throw" },
  { name: "Grading rules", path: "/inspect/grades" },
  { name: "Design a burn trial", path: "/burn/new" },
  { name: "Proven wicks", path: "/burn/wicks" },
  { name: "New order", path: "/sell/new" },
  { name: "Plan a market day", path: "/sell/new?what=market" },
  { name: "Import orders", path: "/sell/import" },
  { name: "Pack jars", path: "/sell/pack" },
  { name: "Print labels", path: "/sell/labels" },
  { name: "Hazard label", path: "/sell/hazard" },
  { name: "Recall a lot", path: "/sell/recall" },
  { name: "What sold", path: "/sell/sales" },
  { name: "The guided first batch", path: "/first" },
  { name: "Workshops, units and prices", path: "/workshops" },
  { name: "Glossary", path: "/words" },
];
/** Letters typed in one go are asked for once. */
const PAUSE_MS = 120;

export interface FindProps {
  sections: Section[];
  text: string;
  hint: string;
  onText: (text: string) => void;
  onClose: () => void;
}

/** Goes to anything by its name: a batch, a formula, a thing on the shelf, a section. */
export function FindSheet({ sections, text, hint, onText, onClose }: FindProps) {
  const router = useRouter();
  const { workshopId, personId } = useWorkshop();
  const [found, setFound] = useState<{ of: string; things: Found[]; message: string }>({ of: "", things: [], message: "" });
  // What was typed before this was there stands in it, and typing goes on behind it: it takes the focus the moment it stands in the page.
  const takeFocus = useCallback((field: HTMLInputElement | null) => {
    field?.focus();
    field?.setSelectionRange(field.value.length, field.value.length);
  }, []);
  useEffect(() => {
    if (text.trim() === "") return setFound({ of: "", things: [], message: "" });
    const timer = setTimeout(async () => {
      const out = await findThings({ workshopId, personId }, text).catch(() => null);
      setFound({
        of: text,
        things: out?.ok ? out.value : [],
        message: out?.ok ? "" : (out?.message ?? "Cannot reach the workshop. Try again in a moment."),
      });
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [text, workshopId, personId]);
  const go = (path: string) => {
    onClose();
    router.push(path);
  };
  const letters = text.trim().toLowerCase();
  // What was found for other letters is not what Enter goes to now.
  const things = found.of === text ? found.things : found.things.filter((item) => letters !== "" && item.name.toLowerCase().includes(letters));
  const places = sections.filter((section) => section.name.includes(letters));
  const words = letters.length < 2 ? [] : GLOSSARY.filter((word) => word.name.includes(letters));
  const actions = letters === "" ? [] : ACTIONS.filter((action) => letters.split(/\s+/).every((word) => action.name.toLowerCase().includes(word)));
  const row =
    "flex min-h-[44px] cursor-pointer items-baseline justify-between gap-4 px-4 py-2 data-[selected=true]:bg-action data-[selected=true]:text-action-ink";
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/50" />
        <Dialog.Content
          className="sheet fixed top-[8vh] left-1/2 z-50 w-[min(620px,94vw)] -translate-x-1/2 !p-0"
          aria-describedby={undefined}
          onOpenAutoFocus={(event) => event.preventDefault()}
        >
          <Dialog.Title className="sr-only">Find</Dialog.Title>
          <Command label="Find" shouldFilter={false} loop>
            <Command.Input
              ref={takeFocus}
              value={text}
              onValueChange={onText}
              placeholder={hint}
              className="entry w-full !border-0 !border-b-[3px] text-[20px]"
            />
            <Command.List className="max-h-[60vh] overflow-auto pb-2">
              {things.map((item) => (
                <Command.Item key={item.path + item.name} value={`${item.kind} ${item.path} ${item.name}`} onSelect={() => go(item.path)} className={row}>
                  <span className="font-semibold">{item.name}</span>
                  <span className="text-[15px]">{item.kind}</span>
                </Command.Item>
              ))}
              {actions.map((action) => (
                <Command.Item key={action.path} value={`action ${action.path}`} onSelect={() => go(action.path)} className={row}>
                  <span className="font-semibold">{action.name}</span>
                  <span className="text-[15px]">action</span>
                </Command.Item>
              ))}
              {places.map((place) => (
                <Command.Item key={place.path} value={`section ${place.path}`} onSelect={() => go(place.path)} className={row}>
                  <span>{place.name}</span>
                  <span className="text-[15px]">section</span>
                </Command.Item>
              ))}
              {letters.length > 1 ? (
                <Command.Item value={`search ${letters}`} onSelect={() => go(`/findings/trace?q=${encodeURIComponent(text.trim())}`)} className={row}>
                  <span>Search everything for “{text.trim()}”</span>
                  <span className="text-[15px]">batches, lots, notes</span>
                </Command.Item>
              ) : null}
              {words.map((word) => (
                <Command.Item key={word.name} value={`word ${word.name}`} onSelect={() => go(`/words#${word.name.replaceAll(" ", "-")}`)} className={row}>
                  <span>{word.name}</span>
                  <span className="text-[15px]">word</span>
                </Command.Item>
              ))}
              {found.message ? <p className="px-4 py-2">▲ {found.message}</p> : null}
              {letters !== "" && found.of === text && !found.message && found.things.length + places.length + actions.length + words.length === 0 ? (
                <p className="px-4 py-2 text-soft">Nothing here has “{text.trim()}” in its name. Try fewer letters.</p>
              ) : null}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
