import { isTyping } from "./keydown";

const isTextField = (at: EventTarget | null): at is HTMLInputElement | HTMLTextAreaElement =>
  at instanceof HTMLTextAreaElement || (at instanceof HTMLInputElement && /^(text|search|number|tel|email|url|)$/.test(at.type));

/**
 * Keeps what is typed while a part of the page that takes typing is still being loaded, and puts it into the field that then takes the focus. Returns
 * what ends it; by itself it ends with that field.
 */
export function keepTyping(): () => void {
  let kept = "";
  const onKey = (event: KeyboardEvent) => {
    // A field takes it itself; a key that presses a button or belongs to the browser is none to keep.
    if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target) || (kept === "" && event.key === " ")) return;
    if (event.key === "Backspace") kept = kept.slice(0, -1);
    else if (event.key.length === 1) kept += event.key;
    else return;
    event.preventDefault();
    event.stopImmediatePropagation();
  };
  const onFocus = ({ target }: FocusEvent) => {
    if (!isTextField(target)) return;
    end();
    if (kept === "") return;
    const [from, to] = [target.selectionStart ?? target.value.length, target.selectionEnd ?? target.value.length];
    target.setRangeText(kept, from, to, "end");
    target.dispatchEvent(new Event("input", { bubbles: true }));
  };
  const end = () => {
    document.removeEventListener("keydown", onKey, true);
    document.removeEventListener("focusin", onFocus);
  };
  document.addEventListener("keydown", onKey, true);
  document.addEventListener("focusin", onFocus);
  return end;
}
