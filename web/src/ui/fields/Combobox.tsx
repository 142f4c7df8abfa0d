import { useId, useState, type KeyboardEvent, type ReactNode } from "react";

interface ComboboxProps<Item> {
  label: string;
  placeholder?: string;
  /** Shown above the list for those who do not see it. */
  listLabel: string;
  /** What is found by what was typed; all of it may be more than is shown. */
  find: (typed: string) => Item[];
  most?: number;
  keyOf: (item: Item) => string;
  show: (item: Item) => ReactNode;
  pick: (item: Item) => void;
  /** Said when nothing is found. */
  none: string;
  /** Whether the list stands open before anything is typed. */
  open?: boolean;
}

/** Pick one of many by typing a part of its name, with the arrows and Enter, or by the pointer. */
export function Combobox<Item>(props: ComboboxProps<Item>) {
  const { label, placeholder, listLabel, find, most = Infinity, keyOf, show, pick, none, open } = props;
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState(0);
  const list = useId();
  const asked = open || typed.trim() !== "";
  const found = asked ? find(typed.trim()) : [];
  const shown = found.slice(0, most);
  const type = (text: string) => {
    setTyped(text);
    setAt(0);
  };
  const choose = (item: Item | undefined) => {
    if (item === undefined) return;
    type("");
    pick(item);
  };
  const step = (by: number) => setAt((at + by + shown.length) % Math.max(1, shown.length));
  const press = (event: KeyboardEvent) => {
    if (event.key === "ArrowDown") step(1);
    else if (event.key === "ArrowUp") step(-1);
    else if (event.key === "Enter") choose(shown[at]);
    else if (event.key === "Escape" && typed && !open) type("");
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div>
      <input
        role="combobox"
        aria-label={label}
        aria-expanded={shown.length > 0}
        aria-controls={list}
        aria-activedescendant={shown.length ? `${list}-${at}` : undefined}
        placeholder={placeholder}
        value={typed}
        onChange={(event) => type(event.target.value)}
        onKeyDown={press}
        className="min-h-9 w-full border-b border-edge bg-transparent px-1 placeholder:text-quiet pointer-coarse:min-h-11"
      />
      {asked && (
        <div className={open ? "mt-3" : "border border-t-0 border-line bg-paper"}>
          <div id={list} role="listbox" aria-label={listLabel}>
            {shown.map((item, i) => (
              // The keyboard picks in the box above, whose active descendant this is.
              // eslint-disable-next-line jsx-a11y/click-events-have-key-events
              <div
                key={keyOf(item)}
                id={`${list}-${i}`}
                role="option"
                tabIndex={-1}
                aria-selected={i === at}
                onMouseDown={(event) => event.preventDefault()}
                onClick={() => choose(item)}
                className="cursor-pointer px-3 py-1.5 aria-selected:bg-water"
              >
                {show(item)}
              </div>
            ))}
          </div>
          {found.length === 0 && <p className="px-3 py-2 text-sm text-quiet">{none}</p>}
          {found.length > shown.length && (
            <p className="px-3 py-1 text-xs text-quiet">and {found.length - shown.length} more: type on</p>
          )}
        </div>
      )}
    </div>
  );
}
