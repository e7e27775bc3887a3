import type { Schemas } from "@/data/client";

type Conventions = Schemas["Conventions-Output"];

const BOX = "min-h-11 rounded-card border border-hairline bg-paper px-3";

/** How the lifter counts where lifters differ. */
export function Ways({ ways, onKeep }: { ways: Conventions; onKeep: (ways: Conventions) => void }) {
  const put = (part: Partial<Conventions>) => onKeep({ ...ways, ...part });
  return (
    <section aria-labelledby="ways" className="space-y-3">
      <h3 id="ways" className="text-lg font-bold">
        How you count
      </h3>
      <Either
        label="A pair of dumbbells"
        yes="counts both"
        no="counts one"
        value={ways.both_dumbbells}
        onPick={(both_dumbbells) => put({ both_dumbbells })}
      />
      <Either
        label="Body weight in tonnage"
        yes="counts"
        no="counts for nothing"
        value={ways.body_weight}
        onPick={(body_weight) => put({ body_weight })}
      />
      <Either
        label="A half rep"
        yes="counts half"
        no="counts for nothing"
        value={ways.halves}
        onPick={(halves) => put({ halves })}
      />
      <label className="flex items-center justify-between gap-3">
        Points beside body weight
        <select
          value={ways.points ?? ""}
          onChange={(event) => put({ points: (event.target.value || null) as Conventions["points"] })}
          className={BOX}
        >
          <option value="">none</option>
          <option value="men">DOTS, men’s</option>
          <option value="women">DOTS, women’s</option>
        </select>
      </label>
      <p className="text-sm text-faint">All there is is counted anew in this way, what is past as well.</p>
    </section>
  );
}

function Either({
  label,
  yes,
  no,
  value,
  onPick,
}: {
  label: string;
  yes: string;
  no: string;
  value: boolean;
  onPick: (picked: boolean) => void;
}) {
  return (
    <label className="flex items-center justify-between gap-3">
      {label}
      <select
        value={String(value)}
        onChange={(event) => onPick(event.target.value === "true")}
        className={BOX}
      >
        <option value="true">{yes}</option>
        <option value="false">{no}</option>
      </select>
    </label>
  );
}
