import { useLayoutEffect, useRef, useState } from "react";

/** What a view leaves free on a phone, left and right together. */
const MARGINS = 32;
/** The width of a view on a phone: what is drawn for it at first need not be drawn again. */
const WIDTH_HERE = window.innerWidth - MARGINS;

/** The width of an element in CSS pixels, followed as it changes; until it is known `first`, or what a phone has. */
export function useWidth<T extends HTMLElement>(first = 800) {
  const ref = useRef<T>(null);
  const [width, setWidth] = useState(Math.min(first, WIDTH_HERE));
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
