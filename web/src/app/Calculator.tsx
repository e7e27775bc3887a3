import { lazy, Suspense, useState } from "react";
import { useShortcut } from "./shortcuts";

const OnTheBar = lazy(() => import("./OnTheBar"));

/** What to put on the bar: one key away from anywhere. */
export function Calculator() {
  const [open, setOpen] = useState(false);
  useShortcut("b", "B", "What do I put on the bar?", () => setOpen(true));
  return (
    open && (
      <Suspense>
        <OnTheBar onClose={() => setOpen(false)} />
      </Suspense>
    )
  );
}
