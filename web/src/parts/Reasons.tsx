import { useShortcut } from "@/app/shortcuts";
import type { Reason } from "@/data/client";

/** What only supports a decision: the max as known, what the kit did to a load, what to expect of it. */
const WORKING = new Set(["estimate", "rounding", "rounding effect", "outlook", "then", "plates shared"]);

/** Why: the sentence that decides, and the working behind it, folded away. */
export function Reasons({ reasons }: { reasons: readonly Reason[] }) {
  const decisive = reasons.findLast((reason) => !WORKING.has(reason.code)) ?? reasons[0];
  if (!decisive) return null;
  const working = reasons.filter((reason) => reason !== decisive);
  return (
    <>
      <p>{decisive.text}</p>
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
