import { useLayoutEffect, useRef, useState } from "react";

/** The value of before for as long as the new one says the same: what depends on it alone is not drawn anew. */
export function useStable<T>(value: T, same: (one: T, other: T) => boolean): T {
  const [kept, keep] = useState(value);
  if (kept === value || same(kept, value)) return kept;
  keep(value);
  return value;
}

/** Whether two objects have the same fields. */
export const sameFields = <T extends object>(one: T, other: T): boolean =>
  (Object.keys(one) as (keyof T)[]).every((name) => one[name] === other[name]);

// biome-ignore lint/suspicious/noExplicitAny: any function will do
type Functions = Record<string, (...args: any[]) => unknown>;

/** The same functions for as long as a view is shown, each doing what the latest drawing of it says. */
export function useActs<T extends Functions>(latest: T): T {
  const now = useRef(latest);
  useLayoutEffect(() => {
    now.current = latest;
  });
  const [acts] = useState(() => {
    const names = Object.keys(latest);
    const forward =
      (name: string) =>
      (...args: unknown[]) =>
        now.current[name]?.(...args);
    return Object.fromEntries(names.map((name) => [name, forward(name)])) as T;
  });
  return acts;
}
