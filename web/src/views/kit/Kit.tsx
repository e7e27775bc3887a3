import { useState } from "react";
import { answer, client, type Schemas } from "@/data/client";
import { useKit, useKitChange } from "@/data/queries";
import { Button } from "@/parts/Button";
import { Field } from "@/parts/Field";
import { saveFile } from "@/parts/file";
import { Loaded } from "@/parts/Loaded";
import { Trouble } from "@/parts/Notice";
import { plain } from "@/score/words";
import { Bands } from "./Bands";
import { Listed } from "./Listed";
import { number, readNumbers } from "./lists";
import { Rack } from "./Rack";
import { You } from "./You";

type Kit = Schemas["Kit-Output"];
type Place = Schemas["Place"];
type Change = { kit: Kit; plates?: string | null };

/** What there is to lift with, place by place, and the lifter. */
export default function KitView() {
  return (
    <Loaded query={useKit()} what="the kit">
      {(view) => <Places view={view} />}
    </Loaded>
  );
}

function Places({ view }: { view: Schemas["KitView"] }) {
  const [shown, setShown] = useState(() => view.places.find((place) => place.current)?.id ?? 1);
  const [left, setLeft] = useState<Kit | null>(null);
  const place = view.places.find((each) => each.id === shown) ?? (view.places[0] as Place);
  const go = useKitChange((id: number) =>
    client.PUT("/api/kit/current/{place_id}", { params: { path: { place_id: id } } }),
  );
  const add = useKitChange(async (kit: Kit) => {
    const added = await answer(client.POST("/api/kit/places", { body: { kit } }));
    setShown(added.id);
    setLeft(null);
  });
  const leave = useKitChange(async (gone: Place) => {
    await client.DELETE("/api/kit/places/{place_id}", { params: { path: { place_id: gone.id } } });
    setLeft(gone.kit);
  });
  const keep = useKitChange(({ kit, plates = null }: Change) =>
    answer(
      client.PUT("/api/kit/places/{place_id}", {
        params: { path: { place_id: place.id } },
        body: { kit, plates },
      }),
    ),
  );
  return (
    <div className="grid lg:min-h-[calc(100dvh-58px)] lg:grid-cols-[1fr_22rem]">
      <div className="min-w-0 space-y-6 p-4 sm:p-7">
        <h1 className="sr-only">Kit</h1>
        <div className="flex flex-wrap items-center gap-2">
          {view.places.map((each) => (
            <Button
              key={each.id}
              look={each.id === place.id ? "strong" : "quiet"}
              aria-pressed={each.id === place.id}
              onClick={() => setShown(each.id)}
            >
              {each.kit.place}
              {each.current && <span className="font-normal opacity-75">here</span>}
            </Button>
          ))}
          <Button look="quiet" onClick={() => add.mutate({ ...place.kit, place: freeName(view.places) })}>
            Another place
          </Button>
          <span className="ml-auto flex flex-wrap gap-4 text-[15px]">
            {!place.current && (
              <button
                type="button"
                className="min-h-11 font-semibold underline underline-offset-4"
                onClick={() => go.mutate(place.id)}
              >
                Train here
              </button>
            )}
            <Files place={place} onRead={(kit) => keep.mutate({ kit })} />
            {view.places.length > 1 && (
              <button
                type="button"
                className="min-h-11 text-faint underline underline-offset-4"
                onClick={() => leave.mutate(place)}
              >
                Take this place away
              </button>
            )}
          </span>
        </div>
        {left && (
          <p role="status">
            {left.place} is gone.{" "}
            <button type="button" className="underline underline-offset-4" onClick={() => add.mutate(left)}>
              Put it back
            </button>
          </p>
        )}
        {keep.error && <Trouble error={keep.error} />}
        <PlaceKit key={place.id} place={place} onKeep={keep.mutate} />
      </div>
      <You lifter={view.lifter} />
    </div>
  );
}

/** The kit of a place as a file of its own, out and in. */
function Files({ place, onRead }: { place: Place; onRead: (kit: Kit) => void }) {
  const [trouble, setTrouble] = useState("");
  const save = () =>
    saveFile(`${place.kit.place}.kit.json`, JSON.stringify(place.kit, null, 2), "application/json");
  const read = async (file: File | undefined) => {
    if (!file) return;
    try {
      onRead(JSON.parse(await file.text()) as Kit);
      setTrouble("");
    } catch {
      setTrouble(`${file.name} is no kit: it does not hold JSON.`);
    }
  };
  return (
    <>
      <button type="button" onClick={save} className="min-h-11 underline underline-offset-4">
        Save as a file
      </button>
      <label className="flex min-h-11 cursor-pointer items-center underline underline-offset-4 focus-within:outline-2">
        Read a file
        <input
          type="file"
          accept=".json,application/json"
          className="sr-only"
          onChange={(event) => read(event.target.files?.[0])}
        />
      </label>
      {trouble && <span role="alert">{trouble}</span>}
    </>
  );
}

function PlaceKit({ place, onKeep }: { place: Place; onKeep: (change: Change) => void }) {
  const { kit } = place;
  const [wrong, setWrong] = useState("");
  const change = (part: Partial<Kit>) => onKeep({ kit: { ...kit, ...part } });
  const listed = (text: string, then: (numbers: number[]) => void) => {
    const numbers = readNumbers(text);
    setWrong(numbers ? "" : `“${text}” is no list of loads: write 10 12.5 15, or 10-30 by 2.5.`);
    if (numbers) then(numbers);
  };
  const edit = <T,>(list: T[], at: number, part: Partial<T>) =>
    list.map((each, place) => (place === at ? { ...each, ...part } : each));
  return (
    <>
      <Rack kit={kit} />
      {wrong && (
        <p role="alert" className="border-l-4 border-work pl-3">
          {wrong}
        </p>
      )}
      <section aria-label="Plates" className="flex flex-wrap items-end gap-4">
        <Field
          label="Plates: pairs × kg, 0.5x15 is a single one"
          className="min-w-72 flex-1"
          wide
          value={place.plates}
          onKeep={(typed) => onKeep({ kit, plates: typed })}
        />
        <Field
          label="Name of the place"
          wide
          className="w-48"
          value={kit.place}
          onKeep={(typed) => change({ place: typed })}
        />
        <fieldset className="flex w-full flex-wrap gap-1.5">
          <legend className="mb-1 text-[15px] text-faint">One pair more of</legend>
          {["25", "20", "15", "10", "5", "2.5", "1.25", "0.5", "45lb", "25lb", "10lb", "5lb"].map((plate) => (
            <button
              key={plate}
              type="button"
              onClick={() => onKeep({ kit, plates: `${place.plates} 1x${plate}` })}
              className="min-h-11 min-w-11 rounded-card border border-hairline px-2 font-semibold hover:border-ink"
            >
              {plate}
            </button>
          ))}
        </fieldset>
      </section>

      <Listed
        title="Bars"
        items={kit.bars}
        name={(bar) => bar.name}
        onAdd={() =>
          change({
            bars: [
              ...kit.bars,
              {
                name: `Bar ${kit.bars.length + 1}`,
                kind: "bar",
                kg: 15,
                collar_kg: 0,
                sleeve_mm: null,
                count: 1,
                note: "",
              },
            ],
          })
        }
        onRemove={(at) => change({ bars: kit.bars.filter((_, place) => place !== at) })}
      >
        {(bar, at) => (
          <>
            <Field
              label="Name"
              wide
              className="w-40"
              value={bar.name}
              onKeep={(name) => change({ bars: edit(kit.bars, at, { name }) })}
            />
            <label className="text-[15px]">
              <span className="block text-faint">For</span>
              <select
                value={bar.kind}
                onChange={(event) =>
                  change({ bars: edit(kit.bars, at, { kind: event.target.value as Schemas["LoadKind"] }) })
                }
                className="min-h-11 rounded-card border border-hairline bg-paper px-2"
              >
                <option value="bar">bar lifts</option>
                <option value="trap bar">trap bar</option>
                <option value="safety bar">safety bar</option>
              </select>
            </label>
            <Field
              label="kg"
              value={plain(bar.kg)}
              onKeep={(kg) => change({ bars: edit(kit.bars, at, { kg: number(kg) }) })}
            />
            <Field
              label="Collar, kg each"
              value={plain(bar.collar_kg)}
              onKeep={(kg) => change({ bars: edit(kit.bars, at, { collar_kg: number(kg) }) })}
            />
            <Field
              label="Sleeve, mm"
              value={bar.sleeve_mm ?? ""}
              onKeep={(mm) => change({ bars: edit(kit.bars, at, { sleeve_mm: mm ? number(mm) : null }) })}
            />
            <Field
              label="How many"
              value={bar.count}
              onKeep={(count) => change({ bars: edit(kit.bars, at, { count: number(count) }) })}
            />
            <Field
              label="Note"
              wide
              className="w-28"
              value={bar.note}
              onKeep={(note) => change({ bars: edit(kit.bars, at, { note }) })}
            />
          </>
        )}
      </Listed>

      <section aria-label="Dumbbells" className="flex flex-wrap items-end gap-4">
        <Field
          label="Dumbbells, kg: a list, or 10-30 by 2.5"
          wide
          className="min-w-72 flex-1"
          value={kit.dumbbells.map(plain).join(" ")}
          onKeep={(typed) => listed(typed, (dumbbells) => change({ dumbbells }))}
        />
        <Field
          label="Boxes and deficits, cm"
          wide
          className="w-48"
          value={kit.heights.map(plain).join(" ")}
          onKeep={(typed) => listed(typed, (heights) => change({ heights }))}
        />
        <label className="flex min-h-11 items-center gap-3 text-[15px]">
          <input
            type="checkbox"
            checked={kit.belt}
            onChange={(event) => change({ belt: event.target.checked })}
            className="size-5 accent-ink"
          />
          A belt to hang plates from
        </label>
      </section>

      <Listed
        title="Handles to load"
        items={kit.handles}
        name={(handle) => handle.name}
        onAdd={() =>
          change({
            handles: [
              ...kit.handles,
              { name: `Handles ${kit.handles.length + 1}`, kg: 2, collar_kg: 0, sleeve_mm: null, count: 2 },
            ],
          })
        }
        onRemove={(at) => change({ handles: kit.handles.filter((_, place) => place !== at) })}
      >
        {(handle, at) => (
          <>
            <Field
              label="Name"
              wide
              className="w-40"
              value={handle.name}
              onKeep={(name) => change({ handles: edit(kit.handles, at, { name }) })}
            />
            <Field
              label="kg"
              value={plain(handle.kg)}
              onKeep={(kg) => change({ handles: edit(kit.handles, at, { kg: number(kg) }) })}
            />
            <Field
              label="How many"
              value={handle.count}
              onKeep={(count) => change({ handles: edit(kit.handles, at, { count: number(count) }) })}
            />
          </>
        )}
      </Listed>

      <Listed
        title="Machines and cables"
        items={kit.machines}
        name={(machine) => machine.name}
        onAdd={() =>
          change({
            machines: [
              ...kit.machines,
              {
                name: `Machine ${kit.machines.length + 1}`,
                lifts: ["Leg press"],
                first_kg: 10,
                step_kg: 10,
                most_kg: 200,
                add_ons: [],
                ratio: 1,
              },
            ],
          })
        }
        onRemove={(at) => change({ machines: kit.machines.filter((_, place) => place !== at) })}
      >
        {(machine, at) => {
          const put = (part: Partial<Schemas["Machine-Output"]>) =>
            change({ machines: edit(kit.machines, at, part) });
          return (
            <>
              <Field
                label="Name"
                wide
                className="w-40"
                value={machine.name}
                onKeep={(name) => put({ name })}
              />
              <Field
                label="For these lifts; none: all others"
                wide
                className="w-56"
                value={machine.lifts.join(", ")}
                onKeep={(typed) =>
                  put({
                    lifts: typed
                      .split(",")
                      .map((lift) => lift.trim())
                      .filter(Boolean),
                  })
                }
              />
              <Field
                label="First, kg"
                value={plain(machine.first_kg)}
                onKeep={(kg) => put({ first_kg: number(kg) })}
              />
              <Field
                label="Step, kg"
                value={plain(machine.step_kg)}
                onKeep={(kg) => put({ step_kg: number(kg) })}
              />
              <Field
                label="Most, kg"
                value={plain(machine.most_kg)}
                onKeep={(kg) => put({ most_kg: number(kg) })}
              />
              <Field
                label="Add-ons, kg"
                value={machine.add_ons.map(plain).join(" ")}
                onKeep={(typed) => listed(typed, (add_ons) => put({ add_ons }))}
              />
              <Field
                label="Felt, of 1"
                value={plain(machine.ratio)}
                onKeep={(ratio) => put({ ratio: number(ratio) })}
              />
            </>
          );
        }}
      </Listed>

      <Bands kit={kit} onChange={change} />
    </>
  );
}

/** A name that no place has yet. */
function freeName(places: Place[]): string {
  const taken = new Set(places.map((each) => each.kit.place));
  let [name, number] = ["Another place", 2];
  while (taken.has(name)) name = `Another place ${number++}`;
  return name;
}
