import {
  keepPreviousData,
  QueryClient,
  queryOptions,
  useInfiniteQuery,
  useMutation,
  useQueries,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { answer, client, done, type FloorView, type Schemas } from "./client";
import { keepView } from "./device";
import type { SeenView } from "./entry";
import { outbox } from "./outbox";

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: { retry: 1, refetchOnWindowFocus: true, staleTime: 5_000, networkMode: "always" },
    mutations: { networkMode: "always" },
  },
});

export const useToday = () =>
  useQuery({ queryKey: ["today"], queryFn: () => answer(client.GET("/api/today")) });

export const floorKey = (id: string) => ["floor", id];

/** Ask for a session, and note what the record is sure to have told in it. */
async function seen(ask: () => Promise<FloorView>): Promise<SeenView> {
  const asOf = outbox.order;
  return { ...(await ask()), asOf };
}

export const useFloor = (id: string) =>
  useQuery({
    queryKey: floorKey(id),
    queryFn: () =>
      seen(() => answer(client.GET("/api/floor/{session_id}", { params: { path: { session_id: id } } }))),
    refetchOnWindowFocus: "always",
  });

/** Past sessions, page after page, the newest first; those that meet every word of `find`. */
export const useLedger = (find: string) =>
  useInfiniteQuery({
    queryKey: ["ledger", "pages", find],
    initialPageParam: null as string | null,
    placeholderData: keepPreviousData,
    queryFn: ({ pageParam: before, signal }) =>
      answer(client.GET("/api/ledger", { params: { query: { before, find } }, signal })),
    getNextPageParam: ({ sessions, more }) => (more ? (sessions.at(-1)?.id ?? null) : null),
    refetchOnWindowFocus: false,
  });

const weeksUntil = (until: string | null, many: number) =>
  queryOptions({
    queryKey: ["ledger", "weeks", until, many],
    queryFn: () => answer(client.GET("/api/ledger/weeks", { params: { query: { until, many } } })),
  });

/** So many weeks up to the one of a day, up to today's where none is given. */
export const useWeeks = (until: string | null, many: number) =>
  useQuery({ ...weeksUntil(until, many), placeholderData: keepPreviousData });

/** The same for each of some days, as far as they are there. */
export const useManyWeeks = (untils: string[], many: number) =>
  useQueries({
    queries: untils.map((until) => weeksUntil(until, many)),
    combine: (found) => found.flatMap(({ data }) => data?.weeks ?? []),
  });

/** Whole weeks from a Monday on. */
export interface Span {
  monday: string;
  weeks: number;
}

/** The blocks that have a name: the last weeks, and those of the seasons. */
export const useKnownBlocks = () =>
  useQuery({
    queryKey: ["ledger", "blocks"],
    queryFn: () => answer(client.GET("/api/ledger/blocks/known")),
  });

/** Two blocks side by side. */
export const useBlocks = (one: Span, other: Span) =>
  useQuery({
    queryKey: ["ledger", "blocks", one, other],
    placeholderData: keepPreviousData,
    queryFn: () =>
      answer(
        client.GET("/api/ledger/blocks", {
          params: {
            query: {
              one: one.monday,
              one_weeks: one.weeks,
              other: other.monday,
              other_weeks: other.weeks,
            },
          },
        }),
      ),
  });

/** Tell how hard a session was as a whole. */
export function useTellFelt(id: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (felt: number | null) =>
      done(
        client.PUT("/api/ledger/{session_id}/felt", {
          params: { path: { session_id: id } },
          body: { felt },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["ledger"] }),
  });
}

export const usePastSession = (id: string) =>
  useQuery({
    queryKey: ["ledger", id],
    queryFn: () => answer(client.GET("/api/ledger/{session_id}", { params: { path: { session_id: id } } })),
  });

export const usePolicies = () =>
  useQuery({
    queryKey: ["policies"],
    queryFn: () => answer(client.GET("/api/policies")),
    staleTime: Number.POSITIVE_INFINITY,
  });

/** Choose how a lift progresses; everything that was recommended for it is asked anew. */
export function useChoosePolicy() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ liftId, policy }: { liftId: string; policy: Schemas["Policy-Input"] }) =>
      done(client.PUT("/api/policies/{lift_id}", { params: { path: { lift_id: liftId } }, body: policy })),
    onSuccess: () => queries.invalidateQueries(),
  });
}

export const useStrength = () =>
  useQuery({ queryKey: ["strength"], queryFn: () => answer(client.GET("/api/strength")) });

export const useLiftStrength = ({ lift_id, setup_key }: Schemas["KnownLift"]) =>
  useQuery({
    queryKey: ["strength", lift_id, setup_key],
    queryFn: () => answer(client.GET("/api/strength/lift", { params: { query: { lift_id, setup_key } } })),
  });

/** How well the own log was foretold: worked out anew for every change of the record, so asked for apart. */
export const useForetold = () =>
  useQuery({ queryKey: ["foretold"], queryFn: () => answer(client.GET("/api/strength/foretold")) });

interface Remembered extends Pick<Schemas["LiftLine"], "exercise" | "setup"> {
  id: string;
  written: string;
}

/** Tell a recent set or a max of a lift from memory, under an id made here: every load may follow from it. */
export function useRemember() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ id, ...body }: Remembered) =>
      done(
        client.PUT("/api/strength/remembered/{remembered_id}", {
          params: { path: { remembered_id: id } },
          body,
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
}

export function useForget() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (id: string) =>
      done(
        client.DELETE("/api/strength/remembered/{remembered_id}", {
          params: { path: { remembered_id: id } },
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
}

/** Everything that was ever told of a bout, once it is `wanted`. */
export const useBoutHistory = (sessionId: string, position: Schemas["Position"], wanted: boolean) =>
  useQuery({
    queryKey: ["history", sessionId, position],
    enabled: wanted,
    queryFn: () =>
      answer(
        client.GET("/api/ledger/{session_id}/bouts/{group}/{round}/{entry}/{set}/{bout}", {
          params: { path: { session_id: sessionId, ...position } },
        }),
      ),
  });

export const useComposed = (id: string | undefined) =>
  useQuery({
    queryKey: ["compose", id],
    enabled: id !== undefined,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      answer(
        client.GET("/api/compose/sessions/{session_id}", { params: { path: { session_id: id as string } } }),
      ),
  });

/** Examine a text as it is typed; the last answer stays until the next one comes. */
export function useExamined(written: string, slot: string | null) {
  const empty = written.trim() === "";
  return useQuery({
    queryKey: ["examine", written, slot],
    enabled: !empty,
    queryFn: ({ signal }) => answer(client.POST("/api/compose/examine", { body: { written, slot }, signal })),
    placeholderData: (previous) => (empty ? undefined : previous),
    gcTime: 30_000,
  });
}

/** Tell how ready you are for a session: what is expected of it may move. */
export function useTellReadiness() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ id, said }: { id: string; said: Schemas["Readiness"] }) =>
      done(
        client.PUT("/api/today/{session_id}/readiness", {
          params: { path: { session_id: id } },
          body: said,
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
}

/** What to leave out of a session that is to fit so many minutes; asked once there is a number. */
export const useShortened = (id: string, minutes: number | null) =>
  useQuery({
    queryKey: ["today", id, minutes],
    enabled: minutes !== null,
    placeholderData: (previous) => previous,
    queryFn: () =>
      answer(
        client.GET("/api/today/{session_id}/shortened", {
          params: { path: { session_id: id }, query: { minutes: minutes ?? 0 } },
        }),
      ),
  });

/**
 * Start a session, and put what the server settled where the floor will look for it. It is kept on this device before
 * it opens: a connection lost in the next moment takes nothing away.
 */
export function useStart() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (id: string) =>
      seen(() =>
        answer(client.POST("/api/floor/{session_id}/start", { params: { path: { session_id: id } } })),
      ),
    onSuccess: async (view) => {
      queries.setQueryData(floorKey(view.id), view);
      await keepView(view).catch(() => undefined);
      void queries.invalidateQueries({ queryKey: ["today"] });
    },
  });
}

export interface Plan {
  id: string;
  written: string;
  plannedOn: string | null;
  /** What the session fills; where none is told, what the last of its title filled. */
  slot: string | null;
}

/** Save a session as planned under the id it came with. */
export function useSavePlan() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ id, written, plannedOn, slot }: Plan) =>
      answer(
        client.PUT("/api/compose/sessions/{session_id}", {
          params: { path: { session_id: id } },
          body: { written, planned_on: plannedOn, slot },
        }),
      ),
    // Not waited for: what else is on the screen may take its time, the session is saved.
    onSuccess: () => {
      void queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== "examine" });
    },
  });
}

export function useDiscard() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (id: string) =>
      done(client.DELETE("/api/compose/sessions/{session_id}", { params: { path: { session_id: id } } })),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ["today"] });
    },
  });
}

/** Put a finished session under way again. */
export function useReopen(id: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () =>
      done(client.DELETE("/api/floor/{session_id}/finish", { params: { path: { session_id: id } } })),
    onSuccess: () => queries.invalidateQueries(),
  });
}

export const useLifts = (wanted = true) =>
  useQuery({
    queryKey: ["lifts"],
    enabled: wanted,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => answer(client.GET("/api/compose/lifts")),
  });

/**
 * Keep a lift of one's own, renamed where it `was` called otherwise, or, without `lift`, take it away; what was read
 * with the old one is read anew.
 */
export function useKeepLift() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({
      name,
      was = "",
      lift,
    }: {
      name: string;
      was?: string;
      lift: Schemas["LiftToKeep"] | null;
    }) => {
      const params = { path: { name } };
      if (lift && was && was !== name)
        await answer(
          client.POST("/api/compose/lifts/{name}", { params: { path: { name: was } }, body: { name } }),
        );
      if (lift) await answer(client.PUT("/api/compose/lifts/{name}", { params, body: lift }));
      else await done(client.DELETE("/api/compose/lifts/{name}", { params }));
    },
    onSuccess: () => queries.invalidateQueries(),
  });
}

export const useTemplates = (wanted: boolean) =>
  useQuery({
    queryKey: ["templates"],
    enabled: wanted,
    queryFn: () => answer(client.GET("/api/compose/templates")),
  });

/** Keep a text as a template or, with none, take the template away. */
export function useKeepTemplate() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ id, written }: { id: string; written: string | null }) => {
      const params = { path: { template_id: id } };
      if (written !== null)
        await answer(client.PUT("/api/compose/templates/{template_id}", { params, body: { written } }));
      else await done(client.DELETE("/api/compose/templates/{template_id}", { params }));
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: ["templates"] }),
  });
}

export const useRecent = (wanted: boolean) =>
  useQuery({
    queryKey: ["recent"],
    enabled: wanted,
    queryFn: () => answer(client.GET("/api/compose/recent")),
  });

/** The numbers of a line, asked for once nothing that is seen sooner is `waiting` for its answer. */
export const useNumbers = (line: string, waiting: boolean) =>
  useQuery({
    queryKey: ["numbers", line],
    enabled: line.trim() !== "" && !waiting,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 30_000,
    placeholderData: (previous) => previous,
    queryFn: () => answer(client.POST("/api/compose/numbers", { body: { line } })),
  });

export const useArrange = () =>
  useMutation({
    mutationFn: (body: Schemas["Arranging"]) => answer(client.POST("/api/compose/arrange", { body })),
  });

export const useSetAsideList = () =>
  useQuery({ queryKey: ["set aside"], queryFn: () => answer(client.GET("/api/compose/set-aside")) });

const ruleAddress = ({ rule, exercise }: Schemas["SetAside"]) => ({
  params: { path: { rule }, query: { exercise } },
});

/** Change what is set aside, then ask again for everything that depends on it. */
function useSetAsideChange<T>(change: (asked: T) => Promise<unknown>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () =>
      queries.invalidateQueries({
        predicate: ({ queryKey }) => ["examine", "set aside"].includes(String(queryKey[0])),
      }),
  });
}

export const useSetAside = () =>
  useSetAsideChange((asked: Schemas["SetAside"]) =>
    client.PUT("/api/compose/set-aside/{rule}", ruleAddress(asked)),
  );

export const useBringBack = () =>
  useSetAsideChange((all: Schemas["SetAside"][]) =>
    Promise.all(all.map((each) => client.DELETE("/api/compose/set-aside/{rule}", ruleAddress(each)))),
  );

export const useMethods = (wanted: boolean) =>
  useQuery({
    queryKey: ["methods"],
    enabled: wanted,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => answer(client.GET("/api/compose/methods")),
  });

/** A structure for some lifts with its dials turned; until the answer comes, the one before. */
export const useStructure = (method: Schemas["MethodView"], lifts: string[], dials: Record<string, number>) =>
  useQuery({
    queryKey: ["structure", method.id, lifts, dials],
    enabled: lifts.every((lift) => lift.trim() !== ""),
    placeholderData: (previous) => previous,
    queryFn: () =>
      answer(
        client.POST("/api/compose/methods/{method_id}", {
          params: { path: { method_id: method.id } },
          body: { lifts, dials },
        }),
      ),
  });

export const useKit = () => useQuery({ queryKey: ["kit"], queryFn: () => answer(client.GET("/api/kit")) });

/** Change something about the kit or the lifter, then ask anew for all that follows from it. */
export function useKitChange<T>(change: (asked: T) => Promise<unknown>) {
  const queries = useQueryClient();
  return useMutation({
    // One after the other: of two that overtake each other the first would be the one that stands.
    scope: { id: "kit" },
    mutationFn: change,
    onSuccess: () => queries.invalidateQueries(),
  });
}

/** What to put on for some loads, one after the other. */
export const useCalculated = (asked: Schemas["ToLoad"] | null) =>
  useQuery({
    queryKey: ["load", asked],
    enabled: asked !== null,
    placeholderData: (previous) => previous,
    queryFn: () => answer(client.POST("/api/kit/load", { body: asked as Schemas["ToLoad"] })),
  });

/** What plates on one side make of the bar. */
export const useWeighed = (side: string) =>
  useQuery({
    queryKey: ["weigh", side],
    enabled: side.trim() !== "",
    retry: false,
    queryFn: () => answer(client.POST("/api/kit/weigh", { body: { side } })),
  });
