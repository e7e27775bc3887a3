import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, client, done, type Schemas, ServerProblem } from "./client";
import { keepPage, keptPage } from "./device";

export type SeasonView = Schemas["SeasonView"];
export type WeekOfSeason = Schemas["WeekOfSeason"];
export type MeetDay = Schemas["MeetDay"];
export type Wish = Schemas["Wished"];
export type Suggested = Schemas["Suggested"];

/** The season under way, and what day it is. */
export const useSeason = () =>
  useQuery({ queryKey: ["season"], queryFn: () => answer(client.GET("/api/season")) });

/** What a text is as a season, as far as it goes. */
export const useSeasonRead = (written: string) =>
  useQuery({
    queryKey: ["examine", "season", written],
    enabled: written.trim() !== "",
    placeholderData: keepPreviousData,
    queryFn: () => answer(client.POST("/api/season/text/examine", { body: { written } })),
  });

/** Seasons for a wish, to choose from; nothing is planned by it. */
export const useSuggestions = () =>
  useMutation({
    mutationFn: (wish: Wish) => answer(client.POST("/api/suggestions", { body: wish })),
  });

/** Plan the first season of a lifter who begins, its first session today. */
export const useBegin = () =>
  useSeasonChange(({ id, ...first }: { id: string } & Schemas["First"]) =>
    answer(
      client.PUT("/api/suggestions/first/{season_id}", { params: { path: { season_id: id } }, body: first }),
    ),
  );

/** What changes sessions to come is seen everywhere. */
function useSeasonChange<Told, Answer>(change: (told: Told) => Promise<Answer>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () => queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== "examine" }),
    // It may have changed elsewhere: see what it is now.
    onError: () => queries.invalidateQueries({ queryKey: ["season"] }),
  });
}

export const useSaveSeason = () =>
  useSeasonChange(({ id, ...text }: { id: string; written: string; was: string | null }) =>
    answer(client.PUT("/api/season/{season_id}", { params: { path: { season_id: id } }, body: text })),
  );

export const useEndSeason = () =>
  useSeasonChange((id: string) =>
    answer(client.POST("/api/season/{season_id}/end", { params: { path: { season_id: id } } })),
  );

/** Leave a week without training, or train in it after all. */
export const useAway = (id: string) =>
  useSeasonChange(({ monday, how }: { monday: string; how: "away" | "missed" | "back" }) => {
    const params = { path: { season_id: id, monday } };
    return how === "back"
      ? answer(client.DELETE("/api/season/{season_id}/away/{monday}", { params }))
      : answer(
          client.PUT("/api/season/{season_id}/away/{monday}", {
            params,
            body: { missed: how === "missed", why: "" },
          }),
        );
  });

const DAY = "meet day";

/** The day that the season leads to; where it is not to be had, as it was `kept` on this device, and why. */
export const useMeetDay = () =>
  useQuery({
    queryKey: ["season", "day"],
    networkMode: "always",
    queryFn: async () => {
      try {
        const { day } = await answer(client.GET("/api/meet-day"));
        await keepPage(DAY, day);
        return { day, kept: null };
      } catch (error) {
        const day = await keptPage<MeetDay>(DAY);
        if (day)
          return { day, kept: error instanceof ServerProblem ? "The server has trouble" : "No connection" };
        throw error;
      }
    },
  });

/** Whether the log says that a light week is due. */
export const useWatch = (wanted = true) =>
  useQuery({
    queryKey: ["season", "watch"],
    enabled: wanted,
    queryFn: () => answer(client.GET("/api/watch")),
  });

/** The ways in which a week can be made light. */
export const useWaysToLighten = (id: string, monday: string) =>
  useQuery({
    queryKey: ["season", id, "light", monday],
    queryFn: () =>
      answer(
        client.GET("/api/season/{season_id}/light/{monday}", {
          params: { path: { season_id: id, monday } },
        }),
      ),
  });

/** Make a week light. */
export const useLighten = (id: string) =>
  useSeasonChange(({ monday, ...like }: { monday: string } & Schemas["LightLike"]) =>
    answer(
      client.PUT("/api/season/{season_id}/light/{monday}", {
        params: { path: { season_id: id, monday } },
        body: like,
      }),
    ),
  );

/** What a week would be that fits another place, fewer sessions, only the main lifts. */
export const useFitted = (id: string, monday: string, fit: Schemas["Fit"]) =>
  useQuery({
    queryKey: ["season", id, "fit", monday, fit],
    placeholderData: keepPreviousData,
    queryFn: () =>
      answer(
        client.GET("/api/season/{season_id}/fit/{monday}", {
          params: { path: { season_id: id, monday }, query: fit },
        }),
      ),
  });

/** Make a week fit, or plan it as the season has it after all. */
export const useFit = (id: string, monday: string) =>
  useSeasonChange((fit: Schemas["Fit"] | null) => {
    const params = { path: { season_id: id, monday } };
    return fit
      ? done(client.PUT("/api/season/{season_id}/fit/{monday}", { params, body: fit }))
      : done(client.DELETE("/api/season/{season_id}/fit/{monday}", { params }));
  });

/** What is tried in the season under way, the latest first. */
export const useTrials = () =>
  useQuery({ queryKey: ["season", "trials"], queryFn: () => answer(client.GET("/api/trials")) });

/** What can be tried from next Monday on. */
export const useToTry = (id: string) =>
  useQuery({
    queryKey: ["season", id, "trials"],
    queryFn: () =>
      answer(client.GET("/api/season/{season_id}/trials", { params: { path: { season_id: id } } })),
  });

/** Try something with a lift, in weeks that are drawn by lot. */
export const useBeginTrial = (id: string) =>
  useSeasonChange(({ monday, ...like }: { monday: string } & Schemas["TrialLike"]) =>
    answer(
      client.PUT("/api/season/{season_id}/trials/{monday}", {
        params: { path: { season_id: id, monday } },
        body: like,
      }),
    ),
  );

/** Leave a trial: what is to come is as usual. */
export const useEndTrial = (id: string) =>
  useSeasonChange((monday: string) =>
    answer(
      client.DELETE("/api/season/{season_id}/trials/{monday}", {
        params: { path: { season_id: id, monday } },
      }),
    ),
  );

/** The light weeks by lot: what was drawn, what can be, and what came of it. */
export const useLot = (id: string) =>
  useQuery({
    queryKey: ["season", id, "lot"],
    queryFn: () => answer(client.GET("/api/season/{season_id}/lot", { params: { path: { season_id: id } } })),
  });

/** Draw the schools of the light weeks to come. */
export const useDrawLot = (id: string) =>
  useSeasonChange(() =>
    answer(client.PUT("/api/season/{season_id}/lot", { params: { path: { season_id: id } } })),
  );

/** Move a week and all that follows it to another Monday. */
export const useMoveWeek = (id: string) =>
  useSeasonChange(({ monday, to }: { monday: string; to: string }) =>
    answer(
      client.PUT("/api/season/{season_id}/moved/{monday}", {
        params: { path: { season_id: id, monday } },
        body: { to },
      }),
    ),
  );

/** Move a session to another day. */
export const useMoveSession = () =>
  useSeasonChange(({ id, on }: { id: string; on: string }) =>
    done(
      client.PUT("/api/season/sessions/{session_id}/day", {
        params: { path: { session_id: id } },
        body: { on },
      }),
    ),
  );
