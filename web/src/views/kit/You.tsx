import { client, type Schemas } from "@/data/client";
import { useKitChange } from "@/data/queries";
import { Choice } from "@/parts/Field";
import { Trouble } from "@/parts/Notice";
import { WeighIn } from "@/parts/WeighIn";
import { plain } from "@/score/words";
import { fullDate, isoDate } from "../dates";
import { Ways } from "./Ways";

const UNITS: [Schemas["Unit"], string][] = [
  ["kg", "kilograms"],
  ["lb", "pounds"],
];

const SCHOOLS: [Schemas["School"] | "", string][] = [
  ["few big jumps", "few big jumps"],
  ["many small jumps", "many small jumps"],
  ["", "none planned"],
];

const ORDERS: [Schemas["PlateOrder"], string][] = [
  ["big plates inside", "big ones inside"],
  ["fewest plates moved", "so that the fewest move"],
];

type Told = Omit<Schemas["Self"], "weighed">;

/** The lifter: body weight from day to day, the unit they think in, how long they have trained, how they warm up. */
export function You({ lifter }: { lifter: Schemas["Self"] }) {
  const keep = useKitChange((self: Told) => client.PUT("/api/kit/lifter", { body: self }));
  const told: Told = keep.isPending ? keep.variables : lifter;
  const { unit, training_since, warm_ups, plate_order, ways } = told;
  const put = (part: Partial<Told>) =>
    keep.mutate({ unit, training_since, warm_ups, plate_order, ways, ...part });
  const box = "min-h-11 rounded-card border border-hairline bg-paper px-3";
  return (
    <aside className="space-y-5 border-t border-ink bg-panel p-5 sm:p-7 lg:border-t-0 lg:border-l">
      <h2 className="text-2xl font-bold">You</h2>
      <Weighing weighed={lifter.weighed} />
      <Choice
        label="Loads without a unit are"
        of={UNITS}
        value={unit}
        onPick={(picked) => put({ unit: picked })}
      />
      <Choice
        label="Warm-ups"
        of={SCHOOLS}
        value={warm_ups ?? ""}
        onPick={(picked) => put({ warm_ups: picked || null })}
      />
      <Choice
        label="Hang plates"
        of={ORDERS}
        value={plate_order}
        onPick={(picked) => put({ plate_order: picked })}
      />
      <p className="text-sm text-faint">
        With less than a minute to change, plates are always hung so that the change is quick.
      </p>
      <label className="flex items-center justify-between gap-3">
        Training since
        <input
          type="date"
          defaultValue={training_since ?? ""}
          max={isoDate(new Date())}
          onBlur={(event) => put({ training_since: event.target.value || null })}
          className={box}
        />
      </label>
      <p className="text-sm text-faint">
        In the first year Fortis holds back on failure: form and judgement come first.
      </p>
      <Ways ways={ways} onKeep={(changed) => put({ ways: changed })} />
      {keep.error && <Trouble error={keep.error} />}
    </aside>
  );
}

function Weighing({ weighed }: { weighed: Schemas["Weighed"][] }) {
  const forget = useKitChange((day: string) =>
    client.DELETE("/api/kit/body-weight/{on}", { params: { path: { on: day } } }),
  );
  return (
    <section aria-label="Body weight">
      <WeighIn today={isoDate(new Date())} days />
      <ul className="mt-2">
        {weighed.slice(0, 6).map((each) => (
          <li key={each.on} className="flex items-center justify-between">
            <span className="text-faint">{fullDate(each.on)}</span>
            <span>
              <b>{plain(each.kg)} kg</b>
              <button
                type="button"
                aria-label={`Take away ${plain(each.kg)} kg of ${fullDate(each.on)}`}
                onClick={() => forget.mutate(each.on)}
                className="ml-2 min-h-9 px-1 text-faint underline underline-offset-4"
              >
                remove
              </button>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
