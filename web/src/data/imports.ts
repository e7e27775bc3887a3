import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, client, done, type Schemas } from "./client";

export type WaitingFile = Schemas["WaitingView"];
export type ReadAs = Schemas["ReadAs"];

const LOOK_AGAIN_MS = 300;
const fileKey = (id: string) => ["imports", "file", id];
const isAtWork = (file: WaitingFile | undefined) => file?.state === "reading" || file?.state === "writing";

/** The logs that were taken in, the latest first. */
export const useImports = () =>
  useQuery({ queryKey: ["imports"], queryFn: () => answer(client.GET("/api/imports")) });

/** Bring a file. */
export const useBring = () =>
  useMutation({
    mutationFn: (file: File) =>
      answer(
        client.POST("/api/imports/files", {
          params: { query: { name: file.name } },
          headers: { "Content-Type": "application/octet-stream" },
          body: file.name,
          bodySerializer: () => file,
        }),
      ),
  });

/** A file that waits, looked at again for as long as something is going on with it. */
export function useWaitingFile(id: string | null) {
  const queries = useQueryClient();
  return useQuery({
    queryKey: fileKey(id ?? ""),
    enabled: id !== null,
    retry: false,
    refetchInterval: ({ state }) => (isAtWork(state.data) ? LOOK_AGAIN_MS : false),
    queryFn: async () => {
      const path = { file_id: id ?? "" };
      const file = await answer(client.GET("/api/imports/files/{file_id}", { params: { path } }));
      if (file.state === "written") void queries.invalidateQueries({ predicate: isOfTheRecord });
      return file;
    },
  });
}

/** All but the files that wait, which are no part of the record. */
const isOfTheRecord = ({ queryKey }: { queryKey: readonly unknown[] }) => queryKey[1] !== "file";

function useFileChange<Told>(change: (id: string, told: Told) => Promise<WaitingFile>) {
  const queries = useQueryClient();
  return useMutation({
    // One after the other: of two that overtake each other the first would be the one that stands.
    scope: { id: "imports" },
    mutationFn: ({ id, told }: { id: string; told: Told }) => change(id, told),
    // An answer that is under way already tells of the time before.
    onMutate: ({ id }) => queries.cancelQueries({ queryKey: fileKey(id) }),
    onSuccess: (file) => queries.setQueryData(fileKey(file.id), file),
  });
}

/** Read a file in another way. */
export const useReadAs = () =>
  useFileChange((id, told: ReadAs) =>
    answer(
      client.PUT("/api/imports/files/{file_id}/reading", { params: { path: { file_id: id } }, body: told }),
    ),
  );

/** Take names of lifts for others; one that means nothing is left out. */
export const useMean = () =>
  useFileChange((id, told: Record<string, string>) =>
    answer(
      client.PUT("/api/imports/files/{file_id}/lifts", { params: { path: { file_id: id } }, body: told }),
    ),
  );

/** Write a file into the record. */
export const useWrite = () =>
  useFileChange((id, _: null) =>
    answer(client.POST("/api/imports/files/{file_id}/write", { params: { path: { file_id: id } } })),
  );

/** Let a file go that waits. */
export const letGo = (id: string) =>
  done(client.DELETE("/api/imports/files/{file_id}", { params: { path: { file_id: id } } }));

/** Take an import back, or bring it back. */
export function useTurnImport() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ id, back }: { id: string; back: boolean }) => {
      const params = { params: { path: { import_id: id } } };
      return answer(
        back
          ? client.POST("/api/imports/{import_id}/bring-back", params)
          : client.POST("/api/imports/{import_id}/take-back", params),
      );
    },
    onSuccess: () => queries.invalidateQueries({ predicate: isOfTheRecord }),
  });
}
