import {
  burnTimeWords,
  careTexts,
  type Language,
  LOCALE_FORMATS,
  netWeightText,
  SAFETY_PATHS,
  SIGN_PATHS,
  type SignCode,
  safetyTexts,
  textOf,
  wordsOf,
  writeDay,
} from "@hearth/core";
import type { LabelFacts } from "@/server/sales/label-content";

const escaped = (text: string) => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);
const paths = (list: readonly { d: string; fill?: "black" | "white" | undefined; stroke?: number | undefined }[]) =>
  list
    .map(
      (item) =>
        `<path d="${item.d}" fill="${item.fill ?? "none"}"${item.stroke ? ` stroke="#000" stroke-width="${item.stroke}" stroke-linecap="round"` : ""}/>`,
    )
    .join("");

/**
 * A page for who bought the candle: what it is, how to burn it well, its warnings. One file that needs nothing else, and that can be hosted
 * anywhere; nothing of the recipe, the supplier or the price stands in it.
 */
export function buyerPage(content: LabelFacts, languages: readonly Language[], locale: string): string {
  const manner = LOCALE_FORMATS[locale as keyof typeof LOCALE_FORMATS] ?? LOCALE_FORMATS["en-GB"];
  const list = (lines: readonly string[]) => `<ul>${lines.map((line) => `<li>${escaped(line)}</li>`).join("")}</ul>`;
  const without = content.hazard.without.map((mixPart) => mixPart.name);
  const part = (language: Language) => {
    const safety = safetyTexts(content.container, language, content.settings.own, content.isUs);
    const words = wordsOf(content.hazard.answer, language);
    const hazard = [words.signal ?? "", words.contains ?? "", ...words.h, ...words.euh, ...words.p].filter(Boolean);
    const facts_ = [
      `${textOf("net", language)} ${netWeightText(content.statedMg, content.isUs, language)}`,
      content.family ? `${textOf("wax", language)}: ${content.family}` : "",
      content.batch ? `${textOf("batch", language)} ${content.batch.number}` : "",
      content.batch ? textOf("made", language, { day: writeDay(content.batch.pouredOn, manner.date) }) : "",
      content.rooms.length > 0 ? textOf("fills", language, { rooms: content.rooms.join(", ") }) : "",
      content.hours && content.container !== "melt" ? burnTimeWords(content.hours, language) : "",
    ].filter(Boolean);
    return `<section lang="${language}">${list(facts_)}
<h2>${escaped(textOf("care", language))}</h2>${list(careTexts(content.container, language, content.family === "soy", content.isUs))}
<h2>${escaped(content.isUs && language === "en" && safety.always.length > 0 ? textOf("warning", "en") : textOf("safety", language))}</h2>
<p class="signs">${safety.always.map(({ sign }) => `<svg viewBox="0 0 100 100" role="img" aria-label="${SAFETY_PATHS[sign].name}"><circle cx="50" cy="50" r="46" fill="none" stroke="#000" stroke-width="5"/>${paths(SAFETY_PATHS[sign].paths)}${SAFETY_PATHS[sign].struck ? '<path d="M18 18 82 82" stroke="#000" stroke-width="6"/>' : ""}</svg>`).join("")}</p>
${list([...safety.always.map((item) => item.text), ...safety.more])}
${
  without.length === 0 && hazard.length > 0
    ? `<p class="signs">${words.pictograms.map((code) => `<svg viewBox="0 0 100 100" role="img" aria-label="${code}"><path d="M50 3 97 50 50 97 3 50Z" fill="#fff" stroke="#d00000" stroke-width="6"/>${paths(SIGN_PATHS[code as SignCode]?.paths ?? [])}</svg>`).join("")}</p>${list(hazard)}`
    : ""
}</section>`;
  };
  return `<!doctype html>
<html lang="${languages[0] ?? "en"}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${escaped(content.name)}</title>
<style>body{font:18px/1.5 system-ui,sans-serif;color:#111;background:#fff;max-width:40em;margin:0 auto;padding:1.2em}h1{font-size:1.9em;line-height:1.15;margin:.2em 0}h2{font-size:1.2em;margin:1.2em 0 .2em}ul{padding-left:1.2em;margin:.3em 0}section+section{border-top:3px solid #111;margin-top:2em;padding-top:1em}.signs svg{width:3.4em;height:3.4em;margin-right:.5em}</style>
</head><body><h1>${escaped(content.name)}</h1>
${languages.map(part).join("\n")}
${content.settings.maker ? `<p>${escaped(content.settings.maker)}</p>` : ""}
</body></html>
`;
}
