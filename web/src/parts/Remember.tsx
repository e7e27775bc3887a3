import { useId, useState } from "react";
import { v4 as newId } from "uuid";
import type { Schemas } from "@/data/client";
import { useRemember } from "@/data/queries";
import { Button } from "./Button";
import { Trouble } from "./Notice";

/** Where nothing is known of a lift: one field for a recent set or a max, from which its loads follow. */
export function Remember({ lift }: { lift: Pick<Schemas["LiftLine"], "exercise" | "setup"> }) {
  const [id] = useState(() => newId());
  const [typed, setTyped] = useState("");
  const field = useId();
  const remember = useRemember();
  return (
    <form
      className="my-2 border-l-4 border-look pl-3 text-[15px] text-ink"
      onSubmit={(event) => {
        event.preventDefault();
        remember.mutate({ id, exercise: lift.exercise, setup: lift.setup, written: typed });
      }}
    >
      <label htmlFor={field} className="block">
        Nothing is known of {lift.exercise.toLowerCase()} yet. A recent set, or a max you trust:
      </label>
      <div className="mt-1 flex flex-wrap gap-2">
        <input
          id={field}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          placeholder="5 at 100 kg leave 2, or 120 kg"
          autoComplete="off"
          className="min-h-11 w-56 min-w-0 max-w-72 flex-1 rounded-card border border-hairline bg-paper px-3"
        />
        <Button type="submit" disabled={typed.trim() === "" || remember.isPending}>
          Take it
        </Button>
      </div>
      <p className="mt-1 text-faint">
        Or leave it: the Floor takes you up from a light five, and asks how many are left.
      </p>
      {remember.error && <Trouble error={remember.error} />}
    </form>
  );
}
