import { type ReactNode, useDeferredValue } from "react";
import { Trouble, Waiting } from "./Notice";

/**
 * What a query brings, once it is there; until then what is waited for, or what went wrong. It is drawn in slices, so
 * that a slow phone answers taps between them.
 */
export function Loaded<T>({
  query,
  what,
  children,
}: {
  query: { data: T | undefined; error: Error | null; refetch: () => unknown };
  what: string;
  children: (data: NonNullable<T>) => ReactNode;
}) {
  const data = useDeferredValue(query.data);
  if (data !== undefined && data !== null) return children(data);
  if (!query.error) return <Waiting what={what} />;
  return (
    <div className="p-8">
      <Trouble error={query.error} retry={() => void query.refetch()} />
    </div>
  );
}
