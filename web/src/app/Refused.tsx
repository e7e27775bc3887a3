import { lazy, Suspense, useSyncExternalStore } from "react";
import { outbox } from "@/data/outbox";

const RefusedEntries = lazy(() => import("./RefusedEntries"));

/** What the record did not take, where there is any: seldom, so it is fetched only then. */
export function Refused() {
  const { waiting } = useSyncExternalStore(outbox.subscribe, outbox.snapshot);
  const refused = waiting.filter((entry) => entry.refusal !== undefined);
  return (
    refused.length > 0 && (
      <Suspense>
        <RefusedEntries refused={refused} />
      </Suspense>
    )
  );
}
