import { useMutation, useQueryClient } from "@tanstack/react-query";
import { answer, client, type Position, type Schemas } from "./client";
import { deviceHeader } from "./outbox";

/** Correct a bout of a past session: what follows from it is asked for anew. */
export function useCorrect(sessionId: string, position: Position) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (done: Schemas["BoutDone"]) =>
      answer(
        client.PUT("/api/floor/{session_id}/bouts/{group}/{round}/{entry}/{set}/{bout}", {
          params: { path: { session_id: sessionId, ...position }, header: deviceHeader },
          body: done,
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
}
