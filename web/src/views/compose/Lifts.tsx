import { Dialog } from "radix-ui";
import { type FormEvent, memo, type ReactNode, useId, useState } from "react";
import type { Schemas } from "@/data/client";
import { useKeepLift, useLifts } from "@/data/queries";
import { Button } from "@/parts/Button";
import { Trouble } from "@/parts/Notice";

type Lift = Schemas["LiftView"];

const MUSCLES: Schemas["Muscle"][] = [
  "quads",
  "hamstrings",
  "glutes",
  "adductors",
  "calves",
  "chest",
  "back",
  "traps",
  "shoulders",
  "biceps",
  "triceps",
  "grip",
  "trunk",
];
const KINDS: Record<Schemas["LoadKind"], string> = {
  bar: "a bar",
  "trap bar": "the trap bar",
  "safety bar": "the safety bar",
  dumbbells: "two dumbbells",
  dumbbell: "one dumbbell",
  stack: "a machine or cable stack",
  body: "the body, with load or help",
  other: "something else, as written",
};
const TRAITS = {
  failing_is_safe: "It can be failed safely",
  pins: "A missed rep can pin me",
  loads_spine: "It loads the spine",
  unracks: "Every start costs an unrack",
  small: "It is a small single-joint lift",
  one_sided: "It is done one side at a time",
} as const;
const BLANK: Lift = {
  id: "",
  name: "",
  former_names: [],
  load_kind: "bar",
  pattern: "other",
  prime: [],
  helping: [],
  rep_seconds: 3,
  usual_low: 5,
  usual_high: 15,
  body_share: 0,
  one_sided: false,
  small: false,
  failing_is_safe: true,
  pins: false,
  loads_spine: false,
  unracks: false,
  known: true,
  own: false,
};

/** The lifts that are known: looked up, put into the session, changed, and the lifter's own added. */
export const Lifts = memo(function Lifts({
  trigger,
  name = null,
  onUse,
}: {
  trigger: ReactNode;
  /** A name to add at once, where the library does not have it. */
  name?: string | null;
  onUse: (name: string) => void;
}) {
  const [open, setOpen] = useState(false);
  const [shown, setShown] = useState<Lift | null>(null);
  const start = (opened: boolean) => {
    setOpen(opened);
    setShown(name === null ? null : { ...BLANK, name });
  };
  const use = (lift: string) => {
    setOpen(false);
    onUse(lift);
  };
  return (
    <Dialog.Root open={open} onOpenChange={start}>
      <Dialog.Trigger asChild>{trigger}</Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-shade/55" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-2 z-20 mx-auto flex max-w-2xl flex-col overflow-hidden rounded-card border border-hairline bg-paper shadow-2xl sm:inset-y-10"
        >
          <header className="flex items-center justify-between border-b border-ink px-5 py-2">
            <Dialog.Title className="text-xl font-bold">
              {shown ? shown.name || "A lift of my own" : "Lifts"}
            </Dialog.Title>
            <Dialog.Close className="min-h-11 px-2 underline underline-offset-4">Close</Dialog.Close>
          </header>
          <div className="min-h-0 flex-1 overflow-auto p-5">
            {shown ? (
              <LiftForm
                key={shown.name}
                lift={shown}
                onDone={() => (name === null ? setShown(null) : setOpen(false))}
              />
            ) : (
              <LiftList onUse={use} onChange={setShown} />
            )}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
});

function LiftList({ onUse, onChange }: { onUse: (name: string) => void; onChange: (lift: Lift) => void }) {
  const { data: lifts = [] } = useLifts();
  const [sought, setSought] = useState("");
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  const found = lifts.filter((lift) => {
    const text = [lift.name, lift.pattern, lift.load_kind, ...lift.prime].join(" ").toLowerCase();
    return words.every((word) => text.includes(word));
  });
  return (
    <>
      <div className="flex gap-2">
        <input
          type="search"
          aria-label="Look for a lift"
          placeholder="back, bar, hinge …"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
          className="min-h-11 flex-1 rounded-card border border-hairline bg-panel px-3"
        />
        <Button onClick={() => onChange({ ...BLANK, name: sought })}>Add my own</Button>
      </div>
      <ul className="mt-3 divide-y divide-hairline">
        {found.map((lift) => (
          <li key={lift.name} className="flex items-center gap-3">
            <button
              type="button"
              onClick={() => onUse(lift.name)}
              className="min-h-12 flex-1 py-1.5 text-left"
            >
              <span className="font-semibold">{lift.name}</span>
              {lift.own && <span className="ml-2 text-rest">mine</span>}
              <span className="block text-sm text-faint">
                {KINDS[lift.load_kind]} · {lift.prime.join(", ")} · {lift.usual_low} to {lift.usual_high} reps
              </span>
            </button>
            <button
              type="button"
              onClick={() => onChange(lift)}
              aria-label={`Change ${lift.name}`}
              className="min-h-11 px-2 text-[15px] text-faint underline underline-offset-4"
            >
              Change
            </button>
          </li>
        ))}
      </ul>
      {found.length === 0 && <p className="mt-4 text-faint">No lift like that yet: add it as your own.</p>}
    </>
  );
}

function LiftForm({ lift, onDone }: { lift: Lift; onDone: () => void }) {
  const keep = useKeepLift();
  const form = useId();
  const [name, setName] = useState(lift.name);
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const fields = new FormData(event.currentTarget);
    const chosen = (part: string) => MUSCLES.filter((muscle) => fields.get(muscle) === part);
    const number = (field: string) => Number(fields.get(field));
    keep.mutate(
      {
        name: name.trim(),
        was: lift.own ? lift.name : "",
        lift: {
          load_kind: fields.get("load_kind") as Schemas["LoadKind"],
          pattern: lift.pattern,
          prime: chosen("prime"),
          helping: chosen("helping"),
          rep_seconds: number("rep_seconds"),
          usual_low: number("usual_low"),
          usual_high: number("usual_high"),
          body_share: number("body_share") / 100,
          failing_is_safe: fields.has("failing_is_safe"),
          pins: fields.has("pins"),
          loads_spine: fields.has("loads_spine"),
          unracks: fields.has("unracks"),
          small: fields.has("small"),
          one_sided: fields.has("one_sided"),
        },
      },
      { onSuccess: onDone },
    );
  };
  const box = "min-h-11 rounded-card border border-hairline bg-panel px-3";
  return (
    <form onSubmit={submit} className="space-y-5">
      <label className="block">
        <span className="text-faint">Name</span>
        <input
          required
          maxLength={80}
          value={name}
          onChange={(event) => setName(event.target.value.replace(/[[\]:;#]/g, ""))}
          className={`${box} block w-full font-semibold`}
        />
      </label>
      <div className="flex flex-wrap gap-4">
        <label>
          <span className="block text-faint">Loaded with</span>
          <select name="load_kind" defaultValue={lift.load_kind} className={box}>
            {Object.entries(KINDS).map(([kind, words]) => (
              <option key={kind} value={kind}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <Small name="rep_seconds" label="A rep, seconds" value={lift.rep_seconds} least={1} most={20} />
        <Small name="usual_low" label="Usual reps, from" value={lift.usual_low} least={1} most={500} />
        <Small name="usual_high" label="to" value={lift.usual_high} least={1} most={500} />
        <Small
          name="body_share"
          label="Body weight moved, %"
          value={lift.body_share * 100}
          least={0}
          most={100}
        />
      </div>
      <fieldset>
        <legend className="text-faint">What gives out first, and what helps</legend>
        <div className="grid grid-cols-2 gap-x-6 sm:grid-cols-3">
          {MUSCLES.map((muscle) => (
            <label key={muscle} className="flex min-h-11 items-center justify-between gap-2 capitalize">
              {muscle}
              <select
                name={muscle}
                defaultValue={
                  lift.prime.includes(muscle) ? "prime" : lift.helping.includes(muscle) ? "helping" : ""
                }
                className="min-h-9 rounded-card border border-hairline bg-panel px-1"
              >
                <option value="">–</option>
                <option value="prime">first</option>
                <option value="helping">helps</option>
              </select>
            </label>
          ))}
        </div>
      </fieldset>
      <fieldset className="grid sm:grid-cols-2">
        <legend className="text-faint">What it is like</legend>
        {Object.entries(TRAITS).map(([trait, words]) => (
          <label key={trait} className="flex min-h-11 items-center gap-3">
            <input
              type="checkbox"
              name={trait}
              defaultChecked={lift[trait as keyof typeof TRAITS]}
              className="size-5 accent-ink"
            />
            {words}
          </label>
        ))}
      </fieldset>
      {keep.error && <Trouble error={keep.error} />}
      <div className="flex gap-2">
        <Button type="submit" look="strong" disabled={keep.isPending} id={form}>
          Keep this lift
        </Button>
        {lift.own && (
          <Button
            look="quiet"
            onClick={() => keep.mutate({ name: lift.name, lift: null }, { onSuccess: onDone })}
          >
            Forget mine
          </Button>
        )}
        <Button look="quiet" onClick={onDone}>
          Leave it
        </Button>
      </div>
    </form>
  );
}

function Small({
  name,
  label,
  value,
  least,
  most,
}: {
  name: string;
  label: string;
  value: number;
  least: number;
  most: number;
}) {
  return (
    <label>
      <span className="block text-faint">{label}</span>
      <input
        type="number"
        name={name}
        defaultValue={value}
        min={least}
        max={most}
        required
        className="min-h-11 w-24 rounded-card border border-hairline bg-panel px-3"
      />
    </label>
  );
}
