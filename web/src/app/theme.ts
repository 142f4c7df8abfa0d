import { browserStore } from "@/lib/browser/browserStore";

export type Theme = "light" | "dark";

const STORED = "loquen.theme";

export const rememberedTheme = (): Theme => (browserStore.getItem(STORED) === "dark" ? "dark" : "light");

/** Light the page or put the lights out, and remember it in this browser. */
export function applyTheme(theme: Theme): Theme {
  document.documentElement.dataset.theme = theme;
  browserStore.setItem(STORED, theme);
  return theme;
}
