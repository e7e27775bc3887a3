import { group } from "d3-array";
import { memo, useState } from "react";
import type { Step } from "@/data/client";
import { useLifts } from "@/data/queries";
import { Button } from "@/parts/Button";
import { Menu, MenuHeading, MenuItem } from "@/parts/Menu";
import { Sheet } from "@/parts/Sheet";
import { oneMore } from "@/session/played";
import { entryKey } from "@/session/position";
import type { Signals } from "./signals";
import type { Playing } from "./useSession";

type Changing = Pick<Playing, "standing" | "steps" | "done" | "changed" | "acts"> & {
  standIns: Record<string, string[]>;
};

/** What happens on a real floor: a rack that is taken, one more set, another lift, a set left out, an early end. */
export default memo(function More({
  signals,
  onSignals,
  ...playing
}: Changing & { signals: Signals; onSignals: (next: Signals) => void }) {
  const { standing, steps, changed, acts } = playing;
  const [swapping, setSwapping] = useState(false);
  const step = standing.work === null ? undefined : steps[standing.work];
  if (!step) return null;
  const begun = steps.some(
    (each, at) => each.warm_up && entryKey(each) === entryKey(step) && playing.done.has(at),
  );
  const from = begun || step.set > 1 ? Math.max(step.set, 1) : 0;
  return (
    <>
      <Menu
        trigger={
          <button type="button" className="min-h-11 px-2 text-[15px] underline underline-offset-4">
            Change the plan
          </button>
        }
      >
        <Changes {...playing} step={step} onSwap={() => setSwapping(true)} />
        <MenuHeading>When a rest ends</MenuHeading>
        <MenuItem onSelect={() => onSignals({ ...signals, sound: !signals.sound })}>
          {signals.sound ? "No sound" : "With sound"}
        </MenuItem>
        <MenuItem onSelect={() => onSignals({ ...signals, voice: !signals.voice })}>
          {signals.voice ? "No voice" : "Said aloud"}
        </MenuItem>
        <MenuHeading>The session</MenuHeading>
        <MenuItem onSelect={() => acts.skip(() => true)}>End it here</MenuItem>
      </Menu>
      <Swap
        open={swapping}
        onOpenChange={setSwapping}
        name={step.exercise}
        standIns={playing.standIns[step.exercise] ?? []}
        onSwap={(lift) =>
          acts.change({ swapped: { ...changed.swapped, [entryKey(step)]: { lift, set: from } } })
        }
      />
    </>
  );
});

/** What can be changed about the lift that is on, and what can be done first. */
function Changes({
  standing,
  steps,
  done,
  changed,
  acts,
  step,
  onSwap,
}: Changing & { step: Step; onSwap: () => void }) {
  const { change, skip } = acts;
  const key = entryKey(step);
  const before = standing.before === null ? undefined : steps[standing.before];
  const extraOf = before ?? step;
  const extraKey = entryKey(extraOf);
  const groups = [...group(steps, (each) => each.group)];
  const begun = new Set([...done.keys()].map((index) => steps[index]?.group));
  const later = groups.filter(([group]) => group !== step.group && !begun.has(group));
  const members = new Map(
    steps.filter((each) => each.group === step.group).map((each) => [each.entry, each.exercise]),
  );
  const others = [...members].filter(([entry]) => entry !== step.entry);
  const firstGroup = (group: number) => {
    const order = groups.map(([each]) => each).filter((each) => each !== group);
    order.splice(order.indexOf(step.group), 0, group);
    change({ order });
  };
  const firstInRound = (entry: number) => {
    const order = [entry, ...[...members.keys()].filter((each) => each !== entry)];
    change({ within: { ...changed.within, [step.group]: order } });
  };
  return (
    <>
      <MenuItem onSelect={() => change(oneMore(changed, [extraKey]))}>
        One more set of {extraOf.exercise.toLowerCase()}
      </MenuItem>
      <MenuItem onSelect={() => skip((each) => entryKey(each) === key && each.set === step.set)}>
        Leave this set out
      </MenuItem>
      <MenuItem onSelect={() => skip((each) => entryKey(each) === key)}>
        Leave the rest of this lift out
      </MenuItem>
      <MenuItem onSelect={onSwap}>Do another lift instead …</MenuItem>
      {others.length > 0 && <MenuHeading>Start each round with</MenuHeading>}
      {others.map(([entry, exercise]) => (
        <MenuItem key={entry} onSelect={() => firstInRound(entry)}>
          {exercise}
        </MenuItem>
      ))}
      {later.length > 0 && <MenuHeading>Rack taken? Do first</MenuHeading>}
      {later.map(([group, own]) => (
        <MenuItem key={group} onSelect={() => firstGroup(group)}>
          {[...new Set(own.map((each) => each.exercise))].join(" and ")}
        </MenuItem>
      ))}
    </>
  );
}

function Swap({
  open,
  onOpenChange,
  name,
  standIns,
  onSwap,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  name: string;
  standIns: string[];
  onSwap: (lift: string) => void;
}) {
  const { data: lifts = [] } = useLifts();
  const [chosen, setChosen] = useState("");
  const swap = (lift: string) => {
    if (!lift.trim()) return;
    onSwap(lift.trim());
    onOpenChange(false);
  };
  return (
    <Sheet
      title={`Instead of ${name.toLowerCase()}`}
      open={open}
      onClose={() => onOpenChange(false)}
      close="Stay with it"
      className="inset-x-3 top-[12vh] max-h-[76vh] max-w-md"
    >
      <div className="mt-3 flex flex-wrap gap-2">
        {standIns.map((lift) => (
          <Button key={lift} look="quiet" onClick={() => swap(lift)}>
            {lift}
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
    </Sheet>
  );
}
