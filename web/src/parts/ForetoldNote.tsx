import { Link } from "react-router";
import type { Step } from "@/data/client";

/** What the dots and crosses of a score mean, where it foretells. */
export function ForetoldNote({ steps }: { steps: Step[] }) {
  if (!steps.some((step) => step.foretold)) return null;
  return (
    <p className="mt-2 text-sm text-faint">
      The score foretells: dots are reps likely left, crosses reps likely missed, by what is known of your{" "}
      <Link to="/strength" className="underline underline-offset-4">
        strength
      </Link>
      .
    </p>
  );
}
