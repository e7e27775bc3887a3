import { useState } from "react";
import { client, done } from "@/data/client";
import { useKitChange } from "@/data/queries";
import { Button } from "./Button";
import { Trouble } from "./Notice";

/** Body weight noted for a day; the day is asked for only where `days` says so. */
export function WeighIn({ today, days = false }: { today: string; days?: boolean }) {
  const [typed, setTyped] = useState("");
  const [on, setOn] = useState(today);
  const add = useKitChange((kg: number) =>
    done(client.PUT("/api/kit/body-weight", { params: { query: { on } }, body: { kg } })),
  );
  const kg = Number(typed.trim().replace(",", "."));
  return (
    <>
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate(kg, { onSuccess: () => setTyped("") });
        }}
      >
        <label>
          <span className="block text-faint">Body weight, kg</span>
          <input
            inputMode="decimal"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            className="min-h-11 w-24 rounded-card border border-hairline bg-paper px-3 font-semibold"
          />
        </label>
        {days && (
          <input
            type="date"
            aria-label="Weighed on"
            value={on}
            max={today}
            onChange={(event) => setOn(event.target.value)}
            className="min-h-11 rounded-card border border-hairline bg-paper px-2"
          />
        )}
        <Button type="submit" disabled={!(kg > 0) || !on}>
          Note it
        </Button>
      </form>
      {add.error && <Trouble error={add.error} />}
    </>
  );
}
