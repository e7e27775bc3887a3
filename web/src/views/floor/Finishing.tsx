import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { useShortcut } from "@/app/shortcuts";
import { outbox } from "@/data/outbox";
import { useReopen } from "@/data/queries";
import { Button } from "@/parts/Button";
import { Notice, Trouble } from "@/parts/Notice";
import { moment } from "./moment";
import { TakeBack } from "./TakeBack";
import type { Playing } from "./useSession";
import { WhatHappened } from "./WhatHappened";

/** The end: the last bout can still be set right, then the session is closed and added up. */
export function Finishing({ playing }: { playing: Playing }) {
  const { view } = playing;
  const queries = useQueryClient();
  const reopen = useReopen(view.id);
  const go = useNavigate();
  const finished = playing.state === "finished";
  const saved = playing.isSaved;
  const [closing, setClosing] = useState(false);
  const close = () => {
    setClosing(true);
    if (!finished) void outbox.finish(view.id, new Date(moment()).toISOString());
  };
  const added = closing && finished && saved;
  useEffect(() => {
    if (added) void queries.invalidateQueries().then(() => go(`/ledger/${view.id}`));
  }, [added, queries, go, view.id]);
  useShortcut("enter", "Enter", "Finish the session", close);
  return (
    <div className="grid gap-4 lg:grid-cols-2">
      <section className="on-colour rounded-card bg-rest-panel p-6 text-rest-text">
        <h2 className="text-2xl font-bold">
          {finished
            ? "This session is finished"
            : playing.done.size
              ? "That was the last bout"
              : "Nothing is left to do"}
        </h2>
        <p className="mt-1 max-w-prose opacity-80">
          {finished
            ? "You can still correct its bouts."
            : "Correct it if you need to, then finish. The session is added up beside the last one, and your next loads follow."}
        </p>
        <div className="mt-5 flex flex-wrap items-center gap-4">
          <Button look="rest" hotkey="Enter" onClick={close}>
            {finished ? "See it added up" : "Finish the session"}
          </Button>
          {finished && saved && (
            <button
              type="button"
              className="min-h-11 underline underline-offset-4"
              onClick={() => reopen.mutate()}
            >
              Open it again
            </button>
          )}
        </div>
        {!saved && playing.isKept && (
          <div className="mt-4">
            <Notice>
              {finished
                ? "Everything is kept on this device. It is sent, and the session added up, as soon as the server answers."
                : "Some bouts are kept on this device only. They are sent as soon as the server answers."}
            </Notice>
          </div>
        )}
        {reopen.error && (
          <div className="mt-4">
            <Trouble error={reopen.error} />
          </div>
        )}
      </section>
      {playing.done.size ? (
        <WhatHappened playing={playing} slowing={view.slowing} />
      ) : (
        <section className="p-6">
          <TakeBack playing={playing} />
        </section>
      )}
    </div>
  );
}
