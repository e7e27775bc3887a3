import { useEffect, useReducer } from "react";
import { moment } from "./moment";

const EVERY = 200;
const listeners = new Set<() => void>();
let timer: ReturnType<typeof setInterval> | undefined;

const tick = () => {
  for (const listener of listeners) listener();
};

/** Be called a few times a second, and at once when the page is looked at again. Returns how to stop it. */
export function onTick(listener: () => void): () => void {
  if (!listeners.size) {
    timer = setInterval(tick, EVERY);
    document.addEventListener("visibilitychange", tick);
  }
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
    if (listeners.size) return;
    clearInterval(timer);
    document.removeEventListener("visibilitychange", tick);
  };
}

/** The time in milliseconds for what shows it: that alone is drawn anew as it passes. */
export function useMoment(): number {
  const [, again] = useReducer((count: number) => count + 1, 0);
  useEffect(() => onTick(again), []);
  return moment();
}
