import { useEffect, useRef, useState, type RefObject } from "react";

/**
 * Whether an element is in view, or nearly: what is costly to draw waits until it is. With the height that it had when
 * it was last looked at, to be kept while nothing is drawn in it.
 */
export function useInView<Kind extends Element>(): [RefObject<Kind | null>, boolean, number] {
  const element = useRef<Kind>(null);
  const [{ inView, height }, see] = useState({ inView: false, height: 0 });
  useEffect(() => {
    const watched = element.current;
    if (!watched) return;
    const observer = new IntersectionObserver(
      ([entry]) => {
        if (entry) see({ inView: entry.isIntersecting, height: entry.boundingClientRect.height });
      },
      { rootMargin: "400px" },
    );
    observer.observe(watched);
    return () => observer.disconnect();
  }, []);
  return [element, inView, height];
}
