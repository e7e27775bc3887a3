import { lazy, Suspense, useState } from "react";
import type { Schemas } from "@/data/client";
import { useTellReadiness } from "@/data/queries";
import { Trouble } from "@/parts/Notice";

const ReadyCircles = lazy(() => import("./ReadyCircles"));

const HOW =
  "From poor on the left to good on the right; leave out what you like. It moves what is expected only as far as your own log says it matters.";

/** How ready you are: optional, and it counts only as far as the own log says it does. */
export function Ready({ session: { id, readiness } }: { session: Schemas["DueSession"] }) {
  const tell = useTellReadiness();
  const [open, setOpen] = useState(readiness.words !== "");
  return (
    <details
      className="text-[15px]"
      open={open}
      onToggle={({ currentTarget }) => setOpen(currentTarget.open)}
    >
      <summary className="min-h-11 cursor-pointer py-2.5 underline underline-offset-4">
        How ready are you?
      </summary>
      {open && (
        <Suspense fallback={<div className="h-44 sm:h-22" />}>
          <ReadyCircles
            said={tell.isPending ? tell.variables.said : readiness}
            onTell={(said) => tell.mutate({ id, said })}
          />
        </Suspense>
      )}
      <p className="text-faint" role="status">
        {readiness.words || HOW}
      </p>
      {tell.error && <Trouble error={tell.error} />}
    </details>
  );
}
