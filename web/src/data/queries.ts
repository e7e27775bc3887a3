import { QueryClient, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue } from "react";
import { answer, client, type Schemas } from "./client";

export const queryClient = new QueryClient({
  defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: true, staleTime: 5_000 } },
});

export const useToday = () =>
  useQuery({ queryKey: ["today"], queryFn: () => answer(client.GET("/api/today")) });

export const floorKey = (id: string) => ["floor", id];

export const useFloor = (id: string) =>
  useQuery({
    queryKey: floorKey(id),
    queryFn: () => answer(client.GET("/api/floor/{session_id}", { params: { path: { session_id: id } } })),
    refetchOnWindowFocus: "always",
  });

export const useLedger = () =>
  useQuery({ queryKey: ["ledger"], queryFn: () => answer(client.GET("/api/ledger")) });

export const usePastSession = (id: string) =>
  useQuery({
    queryKey: ["ledger", id],
    queryFn: () => answer(client.GET("/api/ledger/{session_id}", { params: { path: { session_id: id } } })),
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
export function useExamined(written: string) {
  const text = useDeferredValue(written);
  return useQuery({
    queryKey: ["examine", text],
    queryFn: ({ signal }) => answer(client.POST("/api/compose/examine", { body: { written: text }, signal })),
    placeholderData: (previous) => previous,
    gcTime: 30_000,
  });
}

/** Start a session, and put what the server settled where the floor will look for it. */
export function useStart() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (id: string) =>
      answer(client.POST("/api/floor/{session_id}/start", { params: { path: { session_id: id } } })),
    onSuccess: (view) => {
      queries.setQueryData(floorKey(view.id), view);
      return queries.invalidateQueries({ queryKey: ["today"] });
    },
  });
}

export interface Plan {
  id: string;
  written: string;
  plannedOn: string | null;
}

/** Save a session as planned under the id it came with. */
export function useSavePlan() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ id, written, plannedOn }: Plan) =>
      answer(
        client.PUT("/api/compose/sessions/{session_id}", {
          params: { path: { session_id: id } },
          body: { written, planned_on: plannedOn },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== "examine" }),
  });
}

export function useDiscard() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (id: string) => {
      await client.DELETE("/api/compose/sessions/{session_id}", { params: { path: { session_id: id } } });
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: ["today"] }),
  });
}

export function useFinish(id: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () =>
      answer(client.POST("/api/floor/{session_id}/finish", { params: { path: { session_id: id } } })),
    onSuccess: () => queries.invalidateQueries(),
  });
}

export const useLifts = () =>
  useQuery({
    queryKey: ["lifts"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => answer(client.GET("/api/compose/lifts")),
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
