import { clsx } from "clsx";
import type { ComponentProps } from "react";
import { Link } from "react-router";
import type { Schemas } from "@/data/client";
import { SmallScore } from "@/score/SmallScore";
import { kilograms } from "@/score/words";
import { fullDate } from "./dates";

/** A session in a calendar: its small score, which opens what was done of it, or its plan. */
export function SmallSession({
  session,
  unit,
  className,
  ...more
}: {
  session: Schemas["SmallSession"];
  unit: number;
} & Omit<ComponentProps<typeof Link>, "to">) {
  const done = session.state === "finished";
  const said = `${session.title}, ${fullDate(session.day)}, ${session.minutes} min, ${kilograms(session.tonnage_kg)}${done ? "" : ", planned"}`;
  return (
    <Link
      to={done ? `/ledger/${session.id}` : `/compose/${session.id}`}
      aria-label={said}
      title={said}
      className={clsx("flex min-h-11 items-end hover:bg-panel", className)}
      {...more}
    >
      <SmallScore score={session.score} unit={unit} open={!done} />
    </Link>
  );
}
