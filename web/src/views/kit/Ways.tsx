import type { Schemas } from "@/data/client";
import { Choice } from "@/parts/Field";

type Conventions = Schemas["Conventions-Output"];
type Points = NonNullable<Conventions["points"]>;

const POINTS: [Points | "", string][] = [
  ["", "none"],
  ["men", "DOTS, men’s"],
  ["women", "DOTS, women’s"],
];

/** How the lifter counts where lifters differ. */
export function Ways({ ways, onKeep }: { ways: Conventions; onKeep: (ways: Conventions) => void }) {
  const either = (
    name: "both_dumbbells" | "body_weight" | "halves",
    label: string,
    yes: string,
    no: string,
  ) => (
    <Choice
      label={label}
      of={[
        ["true", yes],
        ["false", no],
      ]}
      value={String(ways[name])}
      onPick={(picked) => onKeep({ ...ways, [name]: picked === "true" })}
    />
  );
  return (
    <section aria-labelledby="ways" className="space-y-3">
      <h3 id="ways" className="text-lg font-bold">
        How you count
      </h3>
      {either("both_dumbbells", "A pair of dumbbells", "counts both", "counts one")}
      {either("body_weight", "Body weight in tonnage", "counts", "counts for nothing")}
      {either("halves", "A half rep", "counts half", "counts for nothing")}
      <Choice
        label="Points beside body weight"
        of={POINTS}
        value={ways.points ?? ""}
        onPick={(points) => onKeep({ ...ways, points: points || null })}
      />
      <p className="text-sm text-faint">All there is is counted anew in this way, what is past as well.</p>
    </section>
  );
}
