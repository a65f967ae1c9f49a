import { describe, expect, it } from "vitest";
import { dayRule } from "@/forms/rules";
import { formatters, type Units } from "@/ui/units";
import { daysRule, hoursRule, parseTimeOfDay, typedMinutes } from "./day-rules";

const units = (over: Partial<Units> = {}) => formatters({ mass: "g", temperature: "C", zone: "Europe/Berlin", ...over });
const TODAY = "2026-03-14";
const value = (parsed: { ok: true; value: unknown } | { ok: false; message: string }) => (parsed.ok ? parsed.value : parsed.message);

describe("times of a day", () => {
  it("are read as makers write them, and come back as they are typed over", () => {
    for (const [text, minutes] of [
      ["9", 540],
      ["9:30", 570],
      ["9.30", 570],
      ["2 pm", 840],
      ["12:05 am", 5],
      ["0:00", 0],
    ] as const)
      expect(value(parseTimeOfDay(text)), text).toBe(minutes);
    for (const text of ["25", "9:75", "half past", "13 pm", ""]) expect(value(parseTimeOfDay(text)), text).toMatch(/Write a time of the day/);
    for (const minutes of [0, 5, 540, 1_439]) expect(value(parseTimeOfDay(typedMinutes(minutes)))).toBe(minutes);
  });

  it("are read in pairs for working hours, and nothing typed is nobody at work", () => {
    const { parse, initial } = hoursRule({ from: 540, to: 1_020 });
    expect(initial).toBe("9:00–17:00");
    for (const text of ["9:00–17:00", "9-17", "9 to 5 pm", "9:00 — 17.00"]) expect(value(parse(text)), text).toEqual({ from: 540, to: 1_020 });
    expect(value(parse(""))).toBeNull();
    expect(value(parse("17–9"))).toMatch(/ends before it begins/);
    expect(value(parse("9"))).toMatch(/Write it like 9:00–17:00/);
    expect(value(parse("9–12–17"))).toMatch(/Write it like 9:00–17:00/);
  });
});

describe("days that lie ahead", () => {
  it("are read as the place writes them; what is over is refused", () => {
    const { parse, echo } = dayRule(TODAY, units());
    expect(value(parse("28 Mar"))).toBe("2026-03-28");
    expect(value(parse("today"))).toBe(TODAY);
    expect(value(parse("13 Mar"))).toBe("2027-03-13");
    expect(value(parse("13/03/2026"))).toBe("That day is in the past.");
    expect(value(parse("soon"))).toBe("Write a day, like 28/03/2026.");
    expect(echo?.("2026-03-28")).toBe("Sat 28 Mar");
    expect(value(dayRule(TODAY, units({ locale: "en-US" })).parse("3/28"))).toBe("2026-03-28");
    expect(value(dayRule(TODAY, units({ locale: "de-DE" })).parse("28.3.2026"))).toBe("2026-03-28");
  });

  it("stand in a list for days off, and come back as they are written", () => {
    const { parse, initial } = daysRule(["2026-04-03", "2026-04-06"], TODAY, units());
    expect(value(parse(initial))).toEqual(["2026-04-03", "2026-04-06"]);
    expect(value(parse("3 Apr; 6 Apr"))).toEqual(["2026-04-03", "2026-04-06"]);
    expect(value(parse(""))).toEqual([]);
    expect(value(parse("3 Apr, Easter"))).toMatch(/“Easter” is not a day/);
  });
});
