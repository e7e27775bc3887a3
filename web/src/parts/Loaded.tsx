import type { ReactNode } from "react";
import { Trouble, Waiting } from "./Notice";

/** What a query brings, once it is there; until then what is waited for, or what went wrong. */
export function Loaded<T>({
  query,
  what,
  children,
}: {
  query: { data: T | undefined; error: Error | null; refetch: () => unknown };
  what: string;
  children: (data: NonNullable<T>) => ReactNode;
}) {
  if (query.data !== undefined && query.data !== null) return children(query.data);
  if (!query.error) return <Waiting what={what} />;
  return (
    <div className="p-8">
      <Trouble error={query.error} retry={() => void query.refetch()} />
    </div>
  );
}
