import { useNavigate } from "react-router";
import { useShortcut } from "@/app/shortcuts";
import type { FloorView } from "@/data/client";
import { useFinish } from "@/data/queries";
import { Button } from "@/parts/Button";
import { Notice, Trouble } from "@/parts/Notice";
import { outbox, type Playing } from "./useSession";
import { WhatHappened } from "./WhatHappened";

/** The end: the last bout can still be set right, then the session is closed and added up. */
export function Finishing({ view, playing }: { view: FloorView; playing: Playing }) {
  const finish = useFinish(view.id);
  const go = useNavigate();
  const close = async () => {
    if (!(await outbox.settle())) return;
    finish.mutate(undefined, { onSuccess: () => go(`/ledger/${view.id}`) });
  };
  const finished = view.state === "finished";
  const act = finished ? () => go(`/ledger/${view.id}`) : close;
  useShortcut("enter", "Enter", "Finish the session", act);
  return (
    <div className="grid gap-4 lg:grid-cols-2">
      <section className="rounded-card bg-rest-panel p-6 text-rest-text">
        <h2 className="text-2xl font-bold">
          {finished ? "This session is finished" : "That was the last bout"}
        </h2>
        <p className="mt-1 max-w-prose opacity-80">
          {finished
            ? "Its bouts can still be set right."
            : "Set it right if it needs to be, then finish: the session is added up beside the last one, and the next loads follow."}
        </p>
        <Button look="rest" hotkey="Enter" className="mt-5" onClick={act} disabled={finish.isPending}>
          {finished ? "See it added up" : "Finish the session"}
        </Button>
        {playing.status.state !== "saved" && (
          <div className="mt-4">
            <Notice>
              Some bouts are kept on this device only. They are sent as soon as the server answers; then the
              session can be finished.
            </Notice>
          </div>
        )}
        {finish.error && (
          <div className="mt-4">
            <Trouble error={finish.error} retry={close} />
          </div>
        )}
      </section>
      <WhatHappened playing={playing} slowing={view.slowing} />
    </div>
  );
}
