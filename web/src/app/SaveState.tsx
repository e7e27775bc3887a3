import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { useMatch } from "react-router";
import { outbox } from "@/data/outbox";

/** Where the lifter's word is: in the record, or on this device still. Away from the Floor only where it waits. */
export function SaveState() {
  const { state, waiting } = useSyncExternalStore(outbox.subscribe, outbox.snapshot);
  const queries = useQueryClient();
  const playing = useMatch("/floor/:id?") !== null;
  useEffect(() => {
    const others = ({ queryKey }: { queryKey: readonly unknown[] }) => queryKey[0] !== "floor";
    if (state === "saved") void queries.invalidateQueries({ predicate: others });
  }, [state, queries]);
  if (state === "refused") return <b className="text-ink">▲ {waiting.length} not taken</b>;
  if (state === "conflict") return <b className="text-ink">▲ two answers for one bout</b>;
  if (state === "saved" && !playing) return null;
  return (
    <span role="status" className="text-rest">
      <span aria-hidden>● </span>
      {state === "saved"
        ? "saved"
        : state === "keeping"
          ? "keeping"
          : `kept on this device (${waiting.length})`}
    </span>
  );
}
