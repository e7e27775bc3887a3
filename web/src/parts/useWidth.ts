import { useLayoutEffect, useRef, useState } from "react";

/** The width of an element in CSS pixels, followed as it changes. */
export function useWidth<T extends HTMLElement>(first = 800) {
  const ref = useRef<T>(null);
  const [width, setWidth] = useState(first);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    setWidth(element.clientWidth);
    const observer = new ResizeObserver(() => setWidth(element.clientWidth));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, width] as const;
}
