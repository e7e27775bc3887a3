import { useShortcut } from "@/app/shortcuts";
import type { Reason } from "@/data/client";

/** What only supports a decision: the max as known, what the kit did to a load, what to expect of it. */
const WORKING = new Set([
  "estimate",
  "relative",
  "rounding",
  "rounding effect",
  "outlook",
  "then",
  "plates shared",
]);

/** Whether it says why a back-off or a drop is lighter than it is written. */
export const isMadeLighter = (reason: Reason) => reason.code === "made lighter";

/** Why: the sentences that decide, and the working behind them, folded away. */
export function Reasons({ reasons }: { reasons: readonly Reason[] }) {
  const lighter = reasons.filter(isMadeLighter);
  const others = reasons.filter((reason) => !isMadeLighter(reason));
  const last = others.findLast((reason) => !WORKING.has(reason.code)) ?? others[0];
  const decisive = last ? [last, ...lighter] : lighter;
  if (decisive.length === 0) return null;
  const working = others.filter((reason) => reason !== last);
  return (
    <>
      {decisive.map((reason) => (
        <p key={reason.text}>{reason.text}</p>
      ))}
      {working.length > 0 && (
        <details data-working>
          <summary className="min-h-11 cursor-pointer py-2.5 underline underline-offset-4">
            The working
          </summary>
          {working.map((reason) => (
            <p key={reason.text} className="mb-1">
              {reason.text}
            </p>
          ))}
        </details>
      )}
    </>
  );
}

/** One key unfolds the working of everything on a view, and folds it again. */
export function useWorkingKey() {
  useShortcut("y", "Y", "Show the working behind the loads, or fold it away", () => {
    const all = [...document.querySelectorAll<HTMLDetailsElement>("details[data-working]")];
    const open = all.some((each) => !each.open);
    for (const each of all) each.open = open;
  });
}
