import { useSyncExternalStore } from "react";

const query = () => window.matchMedia("(width < 640px)");

/** Whether the page is as narrow as a phone's. */
export function useNarrow(): boolean {
  return useSyncExternalStore(
    (changed) => {
      const watched = query();
      watched.addEventListener("change", changed);
      return () => watched.removeEventListener("change", changed);
    },
    () => query().matches,
  );
}
