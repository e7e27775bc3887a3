import dayjs from "dayjs";

/** A day by its date alone, whatever time of day stands behind it. */
const dateOf = (iso: string) => dayjs(iso.slice(0, 10));

/** A day beside today: today, yesterday, Thursday, 3 November. */
export function dayWords(iso: string, today: string): string {
  const apart = dateOf(iso).diff(dateOf(today), "day");
  if (apart === 0) return "today";
  if (apart === 1) return "tomorrow";
  if (apart === -1) return "yesterday";
  return dateOf(iso).format(apart > 1 && apart < 7 ? "dddd" : "D MMMM");
}

/** A date in full: Tue, 3 Nov 2026. Takes a moment too, told in this device's zone. */
export const fullDate = (iso: string): string => dayjs(iso).format("ddd, D MMM YYYY");

/** A day and its month: 23 Nov. Takes a moment too, told in this device's zone. */
export const dayAndMonth = (day: string | Date): string =>
  (typeof day === "string" ? dateOf(day) : dayjs(day)).format("D MMM");

/** The day of the week, from 0, Monday. */
export const weekdayOf = (iso: string): number => (dateOf(iso).day() + 6) % 7;

/** A day of the week in short, from 0, Monday. */
export const weekday = (day: number): string => dayjs("2024-01-01").add(day, "day").format("ddd");

/** So many days on. */
export const addDays = (iso: string, many: number): string =>
  dateOf(iso).add(many, "day").format("YYYY-MM-DD");

/** How many weeks later a Monday is than another. */
export const weeksBetween = (one: string, other: string): number => dayjs(other).diff(dayjs(one), "week");

/** How far off a day is that a season leads to: 5 weeks to the meet, Sat, 2 Jan 2027. */
export function untilWords(aim: { what: string; on: string }, today: string): string {
  const days = dateOf(aim.on).diff(dateOf(today), "day");
  const day = fullDate(aim.on);
  if (days < 0) return `The ${aim.what} was on ${day}`;
  if (days === 0) return `The ${aim.what} is today`;
  if (days < 14) return `${days} ${days === 1 ? "day" : "days"} to the ${aim.what}, ${day}`;
  return `${Math.floor(days / 7)} weeks to the ${aim.what}, ${day}`;
}

/** A date as the interface wants it, in this device's zone. */
export const isoDate = (date: Date): string => dayjs(date).format("YYYY-MM-DD");

/** A moment as one says it: Tuesday 19:12, or with its date where that was over a week ago. */
export function moment(at: string): string {
  const then = dayjs(at);
  return then.format(dayjs().diff(then, "day", true) < 7 ? "dddd HH:mm" : "ddd, D MMM YYYY HH:mm");
}
