import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { answer, client, type Schemas } from "@/data/client";
import { Button } from "@/parts/Button";
import { Field } from "@/parts/Field";
import { Trouble } from "@/parts/Notice";
import { plain, tenth } from "@/score/words";
import { Listed } from "./Listed";
import { number } from "./lists";

type Kit = Schemas["Kit-Output"];

/** Bands and chains: what each pair adds, known once and for good from what a scale showed. */
export function Bands({ kit, onChange }: { kit: Kit; onChange: (part: Partial<Kit>) => void }) {
  const bands = (at: number, part: Partial<Schemas["Band-Output"]>) =>
    onChange({ bands: kit.bands.map((band, place) => (place === at ? { ...band, ...part } : band)) });
  const chains = (at: number, part: Partial<Schemas["Chain"]>) =>
    onChange({ chains: kit.chains.map((chain, place) => (place === at ? { ...chain, ...part } : chain)) });
  return (
    <>
      <Listed
        title="Bands, by the pair"
        items={kit.bands}
        name={(band) => band.name}
        onAdd={() =>
          onChange({
            bands: [
              ...kit.bands,
              {
                name: ["green", "red", "black", "blue"][kit.bands.length] ?? `band ${kit.bands.length + 1}`,
                top_kg: 15,
                bottom_kg: 0,
                give_or_take_kg: null,
                measured: [],
              },
            ],
          })
        }
        onRemove={(at) => onChange({ bands: kit.bands.filter((_, place) => place !== at) })}
      >
        {(band, at) => (
          <>
            <Field
              label="Name"
              wide
              className="w-40"
              value={band.name}
              onKeep={(name) => bands(at, { name })}
            />
            <Field
              label="At the bottom, kg"
              value={plain(band.bottom_kg)}
              onKeep={(kg) => bands(at, { bottom_kg: number(kg) })}
            />
            <Field
              label="At the top, kg"
              value={plain(band.top_kg)}
              onKeep={(kg) => bands(at, { top_kg: number(kg), give_or_take_kg: null })}
            />
            <p className="min-h-11 content-center text-[15px] text-faint">
              {band.give_or_take_kg !== null && `give or take ${plain(band.give_or_take_kg)} kg. `}
              Write it as [{band.name} bands].
            </p>
          </>
        )}
      </Listed>
      <WeighBands kit={kit} onChange={onChange} />
      <Listed
        title="Chains, by the pair"
        items={kit.chains}
        name={(chain) => chain.name}
        onAdd={() =>
          onChange({ chains: [...kit.chains, { name: `chain ${kit.chains.length + 1}`, kg: 16 }] })
        }
        onRemove={(at) => onChange({ chains: kit.chains.filter((_, place) => place !== at) })}
      >
        {(chain, at) => (
          <>
            <Field
              label="Name"
              wide
              className="w-40"
              value={chain.name}
              onKeep={(name) => chains(at, { name })}
            />
            <Field
              label="kg off the floor"
              value={plain(chain.kg)}
              onKeep={(kg) => chains(at, { kg: number(kg) })}
            />
          </>
        )}
      </Listed>
    </>
  );
}

const COMBINATION = /^\s*([^:=]+?)\s*[:=]\s*(\d+(?:[.,]\d+)?)\s*(?:kg)?\s*$/;

/** Combinations that were weighed, one a line; what each pair adds is solved from all of them. */
function WeighBands({ kit, onChange }: { kit: Kit; onChange: (part: Partial<Kit>) => void }) {
  const [written, setWritten] = useState("");
  const [wrong, setWrong] = useState("");
  const solve = useMutation({
    mutationFn: (combinations: Schemas["Combination"][]) =>
      answer(client.POST("/api/kit/bands/solve", { body: { combinations } })),
    onSuccess: (solved) => {
      const known = new Map(kit.bands.map((band) => [band.name, band]));
      for (const { name, top_kg, give_or_take_kg } of solved) {
        const before = known.get(name) ?? { name, bottom_kg: 0, measured: [] };
        known.set(name, {
          ...before,
          top_kg: tenth(Math.max(top_kg, 0)),
          give_or_take_kg: give_or_take_kg === null ? null : tenth(give_or_take_kg),
        });
      }
      onChange({ bands: [...known.values()] });
    },
  });
  const read = () => {
    const lines = written.split("\n").filter((line) => line.trim());
    const combinations = lines.map((line) => COMBINATION.exec(line));
    const at = combinations.indexOf(null);
    setWrong(at < 0 ? "" : `“${lines[at]}” does not say what the scale showed: write green + red: 48.`);
    if (at >= 0 || !lines.length) return;
    solve.mutate(
      combinations.map((found) => ({
        bands: (found?.[1] ?? "").split("+").map((name) => name.trim()),
        top_kg: number(found?.[2] ?? ""),
      })),
    );
  };
  return (
    <details className="text-[15px]">
      <summary className="min-h-11 cursor-pointer py-2.5 underline underline-offset-4">
        Work out what each band adds from what the scale showed
      </summary>
      <p className="max-w-prose text-faint">
        Lock the bar out over a scale, or hang it there, with different bands on, and write what they added to
        the bar: one combination a line. Weigh one more than you have bands, and Fortis can say how sure it
        is.
      </p>
      <textarea
        aria-label="What the scale showed"
        value={written}
        onChange={(event) => setWritten(event.target.value)}
        placeholder={"green: 18\nred: 30\ngreen + red: 48"}
        rows={4}
        className="mt-2 block w-full max-w-md rounded-card border border-hairline bg-paper p-3"
      />
      <Button className="mt-2" onClick={read}>
        Work it out
      </Button>
      {wrong && (
        <p role="alert" className="mt-2 border-l-4 border-work pl-3">
          {wrong}
        </p>
      )}
      {solve.error && <Trouble error={solve.error} />}
    </details>
  );
}
