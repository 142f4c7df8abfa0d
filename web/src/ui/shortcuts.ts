import { useEffect, useRef } from "react";

/** A key as it is written in the list of shortcuts: "w", "Shift+z", "Ctrl+k". */
function written(event: KeyboardEvent): string {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  const ctrl = event.ctrlKey || event.metaKey ? "Ctrl+" : "";
  const shift = event.shiftKey && /[a-z]/.test(key) ? "Shift+" : "";
  return ctrl + shift + key;
}

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ["INPUT", "TEXTAREA"].includes(target.tagName));

/** Run what a key stands for; plain letters are left to a field that is being typed in. */
export function useShortcuts(keys: Record<string, (event: KeyboardEvent) => void>): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const run = latest.current[written(event)];
      if (!run || event.defaultPrevented) return;
      const leave = typing(event.target) && !event.ctrlKey && !event.metaKey && event.key !== "Escape";
      if (
        leave ||
        (document.querySelector("[role=dialog],[role=listbox],[role=menu]") && event.key !== "Escape")
      )
        return;
      event.preventDefault();
      run(event);
    };
    document.addEventListener("keydown", press);
    return () => document.removeEventListener("keydown", press);
  }, []);
}
