import { clsx } from "clsx";
import { memo } from "react";
import type { Schemas } from "@/data/client";
import { useBringBack, useSetAside, useSetAsideList } from "@/data/queries";
import { Menu, MenuItem } from "@/parts/Menu";

type Warned = Schemas["Warned"];

const BAR: Record<Warned["serious"], string> = {
  "can hurt you": "border-work",
  "look twice": "border-look",
  "good to know": "border-hairline",
};

/** What is unwise about the plan, why, and the remedy; each can be set aside for good. */
export const Cautions = memo(function Cautions({
  cautions,
  onMend,
  onGoTo,
}: {
  cautions: Warned[];
  onMend: (mend: Schemas["Mend"]) => void;
  onGoTo: (line: number) => void;
}) {
  const aside = useSetAsideList();
  const bringBack = useBringBack();
  const ordered = Object.keys(BAR).flatMap((serious) => cautions.filter((each) => each.serious === serious));
  if (!ordered.length && !aside.data?.length) return null;
  return (
    <section aria-labelledby="cautions" className="mt-6">
      <h3 id="cautions" className="font-bold">
        Worth a second look
      </h3>
      <ul className="mt-2 space-y-3">
        {ordered.map((caution) => (
          <li
            key={`${caution.rule}-${caution.line}`}
            className={clsx("border-l-4 pl-3 text-[15px] leading-snug", BAR[caution.serious])}
          >
            <p>
              {caution.serious === "can hurt you" && <b className="text-work">Can hurt you. </b>}
              {caution.text}
            </p>
            <p className="text-faint">
              {caution.reason} {caution.disputed}
            </p>
            <div className="flex flex-wrap gap-x-4">
              {caution.mend && (
                <button
                  type="button"
                  className="min-h-8 font-semibold underline underline-offset-4"
                  onClick={() => caution.mend && onMend(caution.mend)}
                >
                  {caution.mend.label}
                </button>
              )}
              <button
                type="button"
                className="min-h-8 text-faint underline underline-offset-4"
                onClick={() => onGoTo(caution.line)}
              >
                Line {caution.line}
              </button>
              <SetAside caution={caution} />
            </div>
          </li>
        ))}
      </ul>
      {(aside.data?.length ?? 0) > 0 && (
        <p className="mt-3 text-sm text-faint">
          {aside.data?.length} set aside.{" "}
          <button
            type="button"
            className="min-h-8 underline underline-offset-4"
            onClick={() => bringBack.mutate(aside.data ?? [])}
          >
            Hear them again
          </button>
        </p>
      )}
    </section>
  );
});

function SetAside({ caution }: { caution: Warned }) {
  const setAside = useSetAside();
  const { rule, exercise } = caution;
  return (
    <Menu
      trigger={
        <button type="button" className="min-h-8 text-faint underline underline-offset-4">
          Set aside
        </button>
      }
    >
      <MenuItem onSelect={() => setAside.mutate({ rule, exercise })}>
        For {exercise.toLowerCase()}, for good
      </MenuItem>
      <MenuItem onSelect={() => setAside.mutate({ rule, exercise: "" })}>For every lift, for good</MenuItem>
    </Menu>
  );
}
