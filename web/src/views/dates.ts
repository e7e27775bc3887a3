const DAY = 86_400_000;
const WEEKDAY = new Intl.DateTimeFormat("en-GB", { weekday: "long" });
const DATE = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "long" });
const FULL = new Intl.DateTimeFormat("en-GB", {
  weekday: "short",
  day: "numeric",
  month: "short",
  year: "numeric",
});

const local = (iso: string) => new Date(`${iso.slice(0, 10)}T12:00:00`);

/** A day beside today: today, yesterday, Thursday, 3 November. */
export function dayWords(iso: string, today: string): string {
  const apart = Math.round((local(iso).getTime() - local(today).getTime()) / DAY);
  if (apart === 0) return "today";
  if (apart === 1) return "tomorrow";
  if (apart === -1) return "yesterday";
  if (apart > 1 && apart < 7) return WEEKDAY.format(local(iso));
  return DATE.format(local(iso));
}

/** A date in full: Tue, 3 Nov 2026. Takes a moment too, told in this device's zone. */
export const fullDate = (iso: string): string => FULL.format(iso.length > 10 ? new Date(iso) : local(iso));

const SHORT = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short" });
const SHORT_DAY = new Intl.DateTimeFormat("en-GB", { weekday: "short" });
/** A Monday. */
const MONDAY = "2024-01-01";

/** A day and its month: 23 Nov. Takes a moment too, told in this device's zone. */
export const dayAndMonth = (day: string | Date): string =>
  SHORT.format(typeof day === "string" ? local(day) : day);

/** The day of the week, from 0, Monday. */
export const weekdayOf = (iso: string): number => (local(iso).getDay() + 6) % 7;

/** A day of the week in short, from 0, Monday. */
export const weekday = (day: number): string => SHORT_DAY.format(local(addDays(MONDAY, day)));

/** So many days on. */
export function addDays(iso: string, many: number): string {
  const day = local(iso);
  day.setDate(day.getDate() + many);
  return isoDate(day);
}

/** How far off a day is that a season leads to: 5 weeks to the meet, Sat, 2 Jan 2027. */
export function untilWords(aim: { what: string; on: string }, today: string): string {
  const days = Math.round((local(aim.on).getTime() - local(today).getTime()) / DAY);
  const day = fullDate(aim.on);
  if (days < 0) return `The ${aim.what} was on ${day}`;
  if (days === 0) return `The ${aim.what} is today`;
  if (days < 14) return `${days} ${days === 1 ? "day" : "days"} to the ${aim.what}, ${day}`;
  return `${Math.floor(days / 7)} weeks to the ${aim.what}, ${day}`;
}

/** A date as the interface wants it, in this device's zone. */
export function isoDate(date: Date): string {
  const month = String(date.getMonth() + 1).padStart(2, "0");
  return `${date.getFullYear()}-${month}-${String(date.getDate()).padStart(2, "0")}`;
}

/** A moment as one says it: Tuesday 19:12, or with its date where that was over a week ago. */
export function moment(at: string): string {
  const then = new Date(at);
  const time = then.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
  const days = (Date.now() - then.getTime()) / 86_400_000;
  return `${days < 7 ? then.toLocaleDateString("en-GB", { weekday: "long" }) : fullDate(at)} ${time}`;
}
