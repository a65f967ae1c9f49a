import { isTyping } from "./keydown";

const isTextField = (at: EventTarget | null): at is HTMLInputElement | HTMLTextAreaElement =>
  at instanceof HTMLTextAreaElement || (at instanceof HTMLInputElement && /^(text|search|number|tel|email|url|)$/.test(at.type));

/**
 * Keeps what is typed while a part of the page that takes typing is still being loaded, and puts it into the field that then takes the focus. Returns
 * what ends it; by itself it ends with that field.
 */
export function keepTyping(): () => void {
  let kept = "";
  let field: HTMLInputElement | HTMLTextAreaElement | null = null;
  const onKey = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    // Another field takes it itself; a key that presses a button is none to keep.
    if (!field && (isTyping(event.target) || (kept === "" && event.key === " "))) return;
    if (event.key === "Backspace") kept = kept.slice(0, -1);
    else if (event.key.length === 1) kept += event.key;
    else return;
    event.preventDefault();
    event.stopImmediatePropagation();
  };
  const give = () => {
    end();
    if (!field || kept === "") return;
    const [from, to] = [field.selectionStart ?? field.value.length, field.selectionEnd ?? field.value.length];
    field.setRangeText(kept, from, to, "end");
    field.dispatchEvent(new Event("input", { bubbles: true }));
  };
  const onFocus = ({ target }: FocusEvent) => {
    if (field || !isTextField(target)) return;
    field = target;
    // Once its form stands: while it is being put into the page nobody hears what is put into it. Keys are kept until then.
    requestAnimationFrame(() => setTimeout(give));
  };
  const end = () => {
    document.removeEventListener("keydown", onKey, true);
    document.removeEventListener("focusin", onFocus);
  };
  document.addEventListener("keydown", onKey, true);
  document.addEventListener("focusin", onFocus);
  return end;
}
