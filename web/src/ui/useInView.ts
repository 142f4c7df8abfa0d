import { useEffect, useRef, useState, type RefObject } from "react";

/** Whether an element is in view, or nearly: what is costly to draw waits until it is. */
export function useInView<Kind extends Element>(): [RefObject<Kind | null>, boolean] {
  const element = useRef<Kind>(null);
  const [inView, setInView] = useState(false);
  useEffect(() => {
    const watched = element.current;
    if (!watched) return;
    const observer = new IntersectionObserver(([entry]) => setInView(entry?.isIntersecting ?? true), {
      rootMargin: "400px",
    });
    observer.observe(watched);
    return () => observer.disconnect();
  }, []);
  return [element, inView];
}
