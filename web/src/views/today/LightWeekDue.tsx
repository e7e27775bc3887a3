import { Link } from "react-router";
import { useWatch } from "@/data/season";
import { useDrawn } from "@/parts/useDrawn";

/** The watch, when it has something to say and nothing is planned yet: the signs that count most, and where to go. */
export function LightWeekDue() {
  const { data: watch } = useWatch(useDrawn());
  if (!watch?.is_due || watch.planned) return null;
  const loudest = [...watch.signs].sort((one, other) => other.counts - one.counts).slice(0, 2);
  return (
    <section className="border-l-3 border-look pl-3">
      <h2 className="font-bold">A light week is due</h2>
      {loudest.map((sign) => (
        <p key={sign.mark} className="text-faint">
          {sign.text}
        </p>
      ))}
      <Link to="/season" className="flex min-h-11 items-center underline underline-offset-4">
        All signs, and what it would be
      </Link>
    </section>
  );
}
