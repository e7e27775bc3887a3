import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Step = Schemas["Step"];
export type Bout = Schemas["PerformedBout"];
export type Position = Schemas["Position"];
export type FloorView = Schemas["FloorView"];
export type Reason = Schemas["Reason"];
export type NextLoad = Schemas["NextLoad"];

export const client = createClient<paths>({ baseUrl: "" });

/** What the server says is wrong, in a lifter's words. */
export class ServerProblem extends Error {
  readonly status: number;
  readonly problems: Schemas["Problem"][];

  constructor(problem: Partial<Schemas["ProblemDetail"]>, status: number) {
    super(problem.detail || "The server could not do that.");
    this.status = status;
    this.problems = problem.problems ?? [];
  }
}

/** Unwrap an answer, or throw what is wrong as a ServerProblem. */
export async function answer<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<NonNullable<T>> {
  const { data, error, response } = await call;
  if (error !== undefined || data === undefined || data === null) {
    throw new ServerProblem((error ?? {}) as Partial<Schemas["ProblemDetail"]>, response.status);
  }
  return data;
}

/** Wait for a call whose answer is empty, or throw what is wrong as a ServerProblem. */
export const done = (call: Promise<{ error?: unknown; response: Response }>): Promise<true> =>
  answer(call.then(({ error, response }) => ({ response, error, data: true as const })));
