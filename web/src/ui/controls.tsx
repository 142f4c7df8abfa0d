import { forwardRef, useState, type ButtonHTMLAttributes, type ReactNode } from "react";
import { Dialog as RadixDialog, DropdownMenu, Select as RadixSelect, Switch as RadixSwitch } from "radix-ui";
import { Check, ChevronDown, X } from "lucide-react";

type ButtonProps = ButtonHTMLAttributes<HTMLButtonElement> & { look?: "plain" | "strong" | "word" };

const LOOKS = {
  plain: "border border-line bg-paper px-3 hover:border-edge",
  strong: "border border-edge bg-edge px-3 text-ground hover:bg-edge-deep",
  word: "px-1.5 font-semibold text-edge-deep underline-offset-4 hover:underline",
};

const BUTTON = "min-h-9 rounded-sm text-sm whitespace-nowrap disabled:opacity-45 pointer-coarse:min-h-11";

/** How a button looks, for a link that stands in the place of one. */
export const buttonLook = (look: keyof typeof LOOKS): string =>
  `inline-flex items-center ${BUTTON} ${LOOKS[look]}`;

export const Button = forwardRef<HTMLButtonElement, ButtonProps>(function Button(
  { look = "plain", className = "", ...rest },
  ref,
) {
  return <button ref={ref} type="button" className={`${BUTTON} ${LOOKS[look]} ${className}`} {...rest} />;
});

interface DialogProps {
  title: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  children: ReactNode;
  wide?: boolean;
  widest?: boolean;
  /** Whether closing it would lose what was typed: then it asks first. */
  unsaved?: boolean;
}

export function Dialog({ title, open, onOpenChange, children, wide, widest, unsaved }: DialogProps) {
  const [asking, setAsking] = useState(false);
  const turn = (shown: boolean) => {
    if (shown || !unsaved) onOpenChange(shown);
    else setAsking(true);
  };
  return (
    <RadixDialog.Root open={open} onOpenChange={turn}>
      <RadixDialog.Portal>
        <RadixDialog.Overlay className="fixed inset-0 z-30 bg-shade" />
        <RadixDialog.Content
          aria-describedby={undefined}
          className={`fixed top-[8vh] left-1/2 z-40 max-h-[84vh] w-[calc(100vw-24px)] -translate-x-1/2 overflow-y-auto border border-line bg-paper p-6 ${widest ? "max-w-6xl" : wide ? "max-w-3xl" : "max-w-lg"}`}
        >
          <RadixDialog.Title className="mb-4 pr-8 text-xl font-semibold">{title}</RadixDialog.Title>
          {asking && unsaved && (
            <div role="alert" className="mb-4 border-l-3 border-short py-1 pl-3">
              <p className="mb-2">What is typed here is not saved.</p>
              <span className="flex flex-wrap gap-2">
                <Button look="strong" onClick={() => setAsking(false)}>
                  Go on typing
                </Button>
                <Button onClick={() => onOpenChange(false)}>Leave it unsaved</Button>
              </span>
            </div>
          )}
          {children}
          <RadixDialog.Close
            aria-label="Close"
            className="absolute top-4 right-4 grid size-9 place-items-center text-quiet hover:text-ink pointer-coarse:size-11"
          >
            <X size={18} />
          </RadixDialog.Close>
        </RadixDialog.Content>
      </RadixDialog.Portal>
    </RadixDialog.Root>
  );
}

interface SelectProps {
  label: string;
  value: string;
  options: [string, string][];
  onChange: (value: string) => void;
  quiet?: boolean;
  placeholder?: string;
}

export function Select({ label, value, options, onChange, quiet, placeholder }: SelectProps) {
  return (
    <RadixSelect.Root value={value} onValueChange={onChange}>
      <RadixSelect.Trigger
        aria-label={label}
        className={`inline-flex min-h-8 max-w-full items-center justify-between gap-1.5 rounded-sm px-2 text-sm hover:border-edge pointer-coarse:min-h-11 ${quiet ? "border border-transparent" : "border border-line bg-paper"}`}
      >
        <span className="truncate">
          <RadixSelect.Value placeholder={placeholder} />
        </span>
        <ChevronDown size={14} className="shrink-0 text-quiet" />
      </RadixSelect.Trigger>
      <RadixSelect.Portal>
        <RadixSelect.Content
          position="popper"
          sideOffset={4}
          collisionPadding={8}
          className="z-50 max-h-[min(20rem,var(--radix-select-content-available-height))] overflow-hidden border border-line bg-paper shadow-lg"
        >
          <RadixSelect.Viewport className="p-1">
            {options.map(([key, words]) => (
              <RadixSelect.Item
                key={key}
                value={key}
                className="flex min-h-8 cursor-pointer items-center gap-2 px-2 text-sm outline-none data-highlighted:bg-water pointer-coarse:min-h-11"
              >
                <RadixSelect.ItemText>{words}</RadixSelect.ItemText>
                <RadixSelect.ItemIndicator>
                  <Check size={14} />
                </RadixSelect.ItemIndicator>
              </RadixSelect.Item>
            ))}
          </RadixSelect.Viewport>
        </RadixSelect.Content>
      </RadixSelect.Portal>
    </RadixSelect.Root>
  );
}

export function Switch({
  label,
  on,
  onChange,
}: {
  label: string;
  on: boolean;
  onChange: (on: boolean) => void;
}) {
  return (
    <RadixSwitch.Root
      aria-label={label}
      checked={on}
      onCheckedChange={onChange}
      className="relative h-7 w-12 shrink-0 rounded-full border border-mark bg-paper data-[state=checked]:border-edge data-[state=checked]:bg-edge"
    >
      <RadixSwitch.Thumb className="block size-5 translate-x-1 rounded-full bg-quiet data-[state=checked]:translate-x-5.5 data-[state=checked]:bg-ground" />
    </RadixSwitch.Root>
  );
}

interface MenuProps {
  label: string;
  trigger: ReactNode;
  items: { words: string; run: () => void }[];
}

export function Menu({ label, trigger, items }: MenuProps) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        aria-label={label}
        className="grid size-9 place-items-center rounded-sm text-quiet hover:text-ink pointer-coarse:size-11"
      >
        {trigger}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" className="z-50 min-w-36 border border-line bg-paper p-1 shadow-lg">
          {items.map(({ words, run }) => (
            <DropdownMenu.Item
              key={words}
              onSelect={run}
              className="flex min-h-9 cursor-pointer items-center px-3 text-sm outline-none data-highlighted:bg-water pointer-coarse:min-h-11"
            >
              {words}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
