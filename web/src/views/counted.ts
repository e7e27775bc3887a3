import { grouped } from "@/score/words";

/** So many of something: 1 session, 1,204 sessions. */
export const counted = (many: number, noun: string): string =>
  `${grouped(many)} ${noun}${many === 1 ? "" : "s"}`;
