"use client";

import { useCombobox } from "downshift";
import { type ReactNode, useId, useMemo, useRef, useState } from "react";
import { PopoverBox } from "@/ui/popover";
import { WhatIs } from "@/ui/word";
import { wordAt } from "@/ui/word-labels";
import { type Choice, matching } from "./matches";

interface ChooserProps {
  label: string;
  /** What tells it from others of the same label, for who does not see where it stands. */
  of?: string | undefined;
  name?: string;
  value: string;
  options: readonly Choice[];
  onValue: (value: string) => void;
  onLeave?: () => void;
  error?: string;
  hint?: ReactNode;
  placeholder?: string;
  /** Hides the label for the eye where the place says it. */
  quiet?: boolean;
  /** Called when somebody begins to look: the rest can then be read. */
  onLook?: () => void;
  /** Something new, made beside the form and taken at once. */
  add?: { label: string; run: (text: string) => void } | undefined;
}

/** Stands in the list for something new. */
const NEW: Choice = { value: "\u0000new", name: "" };

/** A list that is searched as one types: what is found, what is chosen, and what the keys do. */
function useChooser({ label, value, options, onValue, onLeave, onLook, add }: ChooserProps) {
  const id = useId();
  /** What is typed while looking; null while nobody looks. */
  const [text, setText] = useState<string | null>(null);
  const moved = useRef(false);
  const word = wordAt(label);
  const [explained, setExplained] = useState(false);
  const chosen = useMemo(() => options.find((option) => option.value === value) ?? null, [options, value]);
  const found = useMemo(() => (text === null ? [] : [...matching(options, text), ...(add ? [NEW] : [])]), [options, text, add]);
  const { isOpen, highlightedIndex, getLabelProps, getInputProps, getMenuProps, getItemProps } = useCombobox<Choice>({
    id,
    inputId: `${id}-input`,
    items: found,
    selectedItem: chosen,
    inputValue: text ?? chosen?.name ?? "",
    itemToString: (choice) => choice?.name ?? "",
    // The lists are made anew as one types; what is chosen stays the same by its value.
    itemToKey: (choice) => choice?.value,
    defaultHighlightedIndex: 0,
    stateReducer: (state, { type, changes }) => {
      const { InputBlur, InputKeyDownEscape } = useCombobox.stateChangeTypes;
      // Leaving it, or Escape, leaves what was chosen.
      return type === InputBlur || type === InputKeyDownEscape ? { ...changes, selectedItem: state.selectedItem, inputValue: state.inputValue } : changes;
    },
    onStateChange: ({ type, isOpen: opened, selectedItem }) => {
      const { InputChange, ItemClick, InputKeyDownEnter } = useCombobox.stateChangeTypes;
      // What is typed is taken where it is typed, below.
      if (opened === true && type !== InputChange) setText("");
      else if (opened === false) setText(null);
      if (opened === true) onLook?.();
      if (opened === false) onLeave?.();
      if ((type !== ItemClick && type !== InputKeyDownEnter) || !selectedItem) return;
      if (selectedItem === NEW) add?.run(text ?? "");
      else onValue(selectedItem.value);
    },
  });
  const inputProps = getInputProps({
    onKeyDown: (event) => {
      if (event.key === "F1" && word) {
        event.preventDefault();
        setExplained(true);
      }
      if (isOpen && event.key === "Escape") event.stopPropagation();
      if (event.key === "ArrowDown" || event.key === "ArrowUp") moved.current = true;
      // Something new is made where nothing else was found, or when it was gone to.
      const isOnlyNew = found.length === 1 && (text ?? "").trim() !== "";
      if (isOpen && event.key === "Enter" && (highlightedIndex < 0 || (found[highlightedIndex] === NEW && !moved.current && !isOnlyNew))) {
        event.preventDefault();
        (event.nativeEvent as Event & { preventDownshiftDefault?: boolean }).preventDownshiftDefault = true;
      }
    },
    // At once, so that no letter is lost however fast one types. What is typed behind the name that stands there is looked for alone.
    onChange: (event) => {
      const typed = event.currentTarget.value;
      const name = chosen?.name ?? "";
      moved.current = false;
      setText(text === null && name !== "" && typed.startsWith(name) ? typed.slice(name.length) : typed);
    },
    onFocus: (event) => {
      PopoverBox.ahead();
      event.currentTarget.select();
    },
  });
  return { id, text, word, explained, setExplained, chosen, found, isOpen, highlightedIndex, getLabelProps, inputProps, getMenuProps, getItemProps };
}

/** What was found, to be chosen from. */
function Found({
  at: { found, chosen, text, highlightedIndex, getMenuProps, getItemProps },
  add,
}: {
  at: ReturnType<typeof useChooser>;
  add: ChooserProps["add"];
}) {
  return (
    <ul
      {...getMenuProps({}, { suppressRefError: true })}
      className="max-h-[min(380px,calc(var(--radix-popover-content-available-height)-16px))] overflow-auto overscroll-contain"
    >
      {found.map((choice, index) => (
        <li
          key={choice.value}
          {...getItemProps({ item: choice, index })}
          className={`flex min-h-[44px] cursor-pointer items-baseline justify-between gap-4 px-3 py-2 ${highlightedIndex === index ? "bg-action text-action-ink" : ""} ${choice === NEW ? "border-t-2 border-line" : ""}`}
        >
          {choice === NEW ? (
            <span>
              + {add?.label}
              {text ? ` “${text}”` : ""}
            </span>
          ) : (
            <>
              <span className="font-semibold">
                {choice === chosen ? <span aria-hidden="true">✓ </span> : null}
                {choice.name}
              </span>
              {choice.note ? <span className={`text-right text-[14px] ${highlightedIndex === index ? "" : "text-soft"}`}>{choice.note}</span> : null}
            </>
          )}
        </li>
      ))}
    </ul>
  );
}

/** Chooses one of many by typing a part of its name. What is shown in it is always the name of what is chosen. */
export function Chooser(props: ChooserProps) {
  const { label, error = "", hint, placeholder = "type a part of its name", add } = props;
  const at = useRef<HTMLDivElement>(null);
  const chooser = useChooser(props);
  const { id, text, word, explained, setExplained, chosen, found, isOpen, getLabelProps, inputProps } = chooser;
  return (
    <div>
      <div className={props.quiet ? "" : "mb-1 flex items-start gap-2"}>
        <label {...getLabelProps()} htmlFor={`${id}-input`} className={props.quiet ? "sr-only" : "block min-w-0 text-[15px] font-semibold"}>
          {label}
          {props.of ? <span className="sr-only"> {props.of}</span> : null}
        </label>
        {word && !props.quiet ? <WhatIs word={word} byKey open={explained} onOpen={setExplained} /> : null}
      </div>
      <div ref={at} className="relative">
        <input
          {...inputProps}
          {...(props.name ? { name: props.name } : {})}
          type="text"
          className="entry truncate !pr-8"
          placeholder={isOpen && chosen ? chosen.name : placeholder}
          aria-invalid={error !== ""}
          aria-describedby={`${id}-said`}
        />
        <span aria-hidden="true" className="pointer-events-none absolute top-[10px] right-3">
          ▾
        </span>
      </div>
      {isOpen ? (
        <PopoverBox
          at={at}
          keepsFocus
          onClose={() => undefined}
          align="start"
          sideOffset={2}
          collisionPadding={8}
          role="presentation"
          className="z-50 w-[max(280px,var(--radix-popover-trigger-width))] max-w-[94vw] border-[3px] border-ink bg-sheet"
        >
          <Found at={chooser} add={add} />
          {found.length === 0 ? (
            <p role="status" className="px-3 py-2 text-soft">
              Nothing here has “{text}” in its name.
            </p>
          ) : null}
        </PopoverBox>
      ) : null}
      <p id={`${id}-said`} className={`mt-1 text-[14px] ${error ? "font-semibold text-hot" : "text-soft"}`} role={error ? "alert" : undefined}>
        {error ? `▲ ${error}` : hint}
      </p>
    </div>
  );
}
