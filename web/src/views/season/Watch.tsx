import { clsx } from "clsx";
import type { Schemas } from "@/data/client";
import { useWatch } from "@/data/season";

type WatchView = Schemas["WatchView"];

/** What the log says of a light week: each sign with what it counts, and how the light weeks so far served. */
export function Watch() {
  const { data: watch } = useWatch();
  if (!watch) return null;
  return (
    <section aria-label="The watch" className="mt-8">
      <h2 className="font-bold">Is a light week due?</h2>
      <p className={clsx("mt-1", watch.is_due && "border-l-3 border-look pl-3 font-semibold")}>
        {watch.text}
      </p>
      {watch.signs.length > 0 && (
        <>
          <Total watch={watch} />
          <ul className="mt-2">
            {watch.signs.map((sign) => (
              <li key={sign.mark} className="border-t border-hairline py-1.5">
                <span className="flex items-center justify-between gap-3">
                  <span className="first-letter:uppercase">{sign.mark}</span>
                  <Share of={sign.counts} most={sign.weight} />
                </span>
                <span className="block text-sm text-faint">{sign.text}</span>
              </li>
            ))}
          </ul>
          <p className="mt-1 text-sm text-faint">
            The last two weeks beside the six before, the best and the worst session left out: one bad day is
            no sign. Pain, illness or a doctor’s word counts for more than any of this.
          </p>
        </>
      )}
      {watch.served.length > 0 && (
        <>
          <h3 className="mt-4 font-semibold">How light weeks have served you</h3>
          <ul>
            {watch.served.map((each) => (
              <li key={each.school ?? "none"} className="text-faint">
                {each.text}
              </li>
            ))}
          </ul>
          <p className="mt-1 text-sm text-faint">
            The first time a lift was trained again beside the last time before, in the middle of all lifts.
          </p>
        </>
      )}
    </section>
  );
}

/** All signs together on the way to the mark. */
function Total({ watch }: { watch: WatchView }) {
  const most = watch.signs.reduce((sum, each) => sum + each.weight, 0);
  const at = (share: number) => `${(100 * share) / most}%`;
  return (
    <div className="mt-3">
      <div aria-hidden className="relative h-3 border border-faint">
        <div
          className={clsx("h-full", watch.is_due ? "bg-look" : "bg-faint")}
          style={{ width: at(watch.total) }}
        />
        <div className="absolute -top-1 -bottom-1 w-0.5 bg-ink" style={{ left: at(watch.mark) }} />
      </div>
      <p className="text-sm text-faint">
        All signs together {hundredths(watch.total)}; from {hundredths(watch.mark)} on one is due.
      </p>
    </div>
  );
}

/** What a sign counts of what it can. */
function Share({ of, most }: { of: number; most: number }) {
  return (
    <span className="flex items-center gap-2 text-sm text-faint">
      <span aria-hidden className="block h-2 border border-faint" style={{ width: 110 * most }}>
        <span className="block h-full bg-look" style={{ width: `${(100 * of) / most}%` }} />
      </span>
      <span className="w-15 text-right">
        {hundredths(of)} of {hundredths(most)}
      </span>
    </span>
  );
}

const hundredths = (share: number) => Math.round(100 * share);
