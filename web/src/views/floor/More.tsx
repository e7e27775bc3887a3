import { Dialog } from "radix-ui";
import { useState } from "react";
import { useLifts } from "@/data/queries";
import { Button } from "@/parts/Button";
import { Menu, MenuHeading, MenuItem } from "@/parts/Menu";
import { entryKey } from "./adjusting";
import type { Signals } from "./signals";
import type { Playing } from "./useSession";

/** What happens on a real floor: a rack that is taken, one more set, another lift, a set left out, an early end. */
export function More({
  playing,
  signals,
  onSignals,
}: {
  playing: Playing;
  signals: Signals;
  onSignals: (next: Signals) => void;
}) {
  const { place, steps, done, changed, change, skip } = playing;
  const [swapping, setSwapping] = useState(false);
  const step = place.work === null ? undefined : steps[place.work];
  const before = place.before === null ? undefined : steps[place.before];
  if (!step) return null;
  const key = entryKey(step);
  const groups = [...Map.groupBy(steps, (each) => each.group)];
  const begun = new Set([...done.keys()].map((index) => steps[index]?.group));
  const later = groups.filter(([group]) => group !== step.group && !begun.has(group));
  const name = (group: number) =>
    [...new Set(steps.filter((each) => each.group === group).map((each) => each.exercise))].join(" and ");
  const first = (group: number) => {
    const order = groups.map(([each]) => each).filter((each) => each !== group);
    order.splice(order.indexOf(step.group), 0, group);
    change({ order });
  };
  const extraOf = before ?? step;
  return (
    <>
      <Menu
        trigger={
          <button type="button" className="min-h-11 px-2 text-[15px] underline underline-offset-4">
            Change the plan
          </button>
        }
      >
        <MenuItem
          onSelect={() =>
            change({
              extra: { ...changed.extra, [entryKey(extraOf)]: (changed.extra[entryKey(extraOf)] ?? 0) + 1 },
            })
          }
        >
          One more set of {extraOf.exercise.toLowerCase()}
        </MenuItem>
        <MenuItem onSelect={() => skip((each) => entryKey(each) === key && each.set === step.set)}>
          Leave this set out
        </MenuItem>
        <MenuItem onSelect={() => skip((each) => entryKey(each) === key)}>
          Leave the rest of this lift out
        </MenuItem>
        <MenuItem onSelect={() => setSwapping(true)}>Do another lift instead …</MenuItem>
        {later.length > 0 && <MenuHeading>The rack is taken: first</MenuHeading>}
        {later.map(([group]) => (
          <MenuItem key={group} onSelect={() => first(group)}>
            {name(group)}
          </MenuItem>
        ))}
        <MenuHeading>The end of a rest</MenuHeading>
        <MenuItem onSelect={() => onSignals({ ...signals, sound: !signals.sound })}>
          {signals.sound ? "No sound" : "With sound"}
        </MenuItem>
        <MenuItem onSelect={() => onSignals({ ...signals, voice: !signals.voice })}>
          {signals.voice ? "No voice" : "Said aloud"}
        </MenuItem>
        <MenuHeading>The session</MenuHeading>
        <MenuItem onSelect={() => skip(() => true)}>End it here</MenuItem>
      </Menu>
      <Swap
        open={swapping}
        onOpenChange={setSwapping}
        name={step.exercise}
        onSwap={(lift) => change({ swapped: { ...changed.swapped, [key]: lift } })}
      />
    </>
  );
}

function Swap({
  open,
  onOpenChange,
  name,
  onSwap,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  name: string;
  onSwap: (lift: string) => void;
}) {
  const { data: lifts = [] } = useLifts();
  const planned = lifts.find((lift) => lift.name === name);
  const [chosen, setChosen] = useState("");
  const alike = lifts.filter((lift) => lift.name !== name && lift.pattern === planned?.pattern).slice(0, 8);
  const swap = (lift: string) => {
    if (!lift.trim()) return;
    onSwap(lift.trim());
    onOpenChange(false);
  };
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-x-3 top-[12vh] z-30 mx-auto max-h-[76vh] max-w-md overflow-auto rounded-card border border-hairline bg-panel p-6 shadow-2xl"
        >
          <Dialog.Title className="text-xl font-bold">Instead of {name.toLowerCase()}</Dialog.Title>
          <div className="mt-3 flex flex-wrap gap-2">
            {alike.map((lift) => (
              <Button key={lift.name} look="quiet" onClick={() => swap(lift.name)}>
                {lift.name}
              </Button>
            ))}
          </div>
          <form
            className="mt-4 flex gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              swap(chosen);
            }}
          >
            <input
              aria-label="Another lift"
              list="swap-lifts"
              value={chosen}
              maxLength={80}
              onChange={(event) => setChosen(event.target.value)}
              className="min-h-11 flex-1 rounded-card border border-hairline bg-paper px-3"
            />
            <datalist id="swap-lifts">
              {lifts.map((lift) => (
                <option key={lift.name} value={lift.name} />
              ))}
            </datalist>
            <Button type="submit" look="strong">
              Do this
            </Button>
          </form>
          <Dialog.Close className="mt-4 min-h-11 underline underline-offset-4">Stay with it</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
