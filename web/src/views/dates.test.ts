import { describe, expect, it } from "vitest";
import { addDays, dayAndMonth, dayWords, fullDate, isoDate, untilWords, weekday, weekdayOf } from "./dates";

describe("days in words", () => {
  it("names a day by how far it is from today", () => {
    const said = ["2026-11-03", "2026-11-04", "2026-11-02", "2026-11-09", "2026-11-10", "2026-11-01"];
    expect(said.map((day) => dayWords(day, "2026-11-03"))).toEqual([
      "today",
      "tomorrow",
      "yesterday",
      "Monday",
      "10 November",
      "1 November",
    ]);
  });

  it("tells dates as one writes them", () => {
    expect(fullDate("2026-11-03")).toBe("Tue, 3 Nov 2026");
    expect(dayAndMonth("2026-11-23")).toBe("23 Nov");
    expect(isoDate(new Date(2026, 0, 5, 23, 59))).toBe("2026-01-05");
  });

  it("begins the week on Monday", () => {
    expect(weekdayOf("2026-11-09")).toBe(0);
    expect(weekdayOf("2026-11-15")).toBe(6);
    expect([0, 6].map(weekday)).toEqual(["Mon", "Sun"]);
  });

  it.each(["2026-03-28", "2026-10-24", "2026-11-01", "2026-12-31", "2028-02-28"])(
    "counts a day as a day from %s, also where the clocks change",
    (day) => {
      const next = new Date(`${day}T00:00:00Z`);
      next.setUTCDate(next.getUTCDate() + 1);
      expect(addDays(day, 1)).toBe(next.toISOString().slice(0, 10));
      expect(addDays(addDays(day, 200), -200)).toBe(day);
      expect(dayWords(addDays(day, 1), day)).toBe("tomorrow");
    },
  );

  it("says how far off an aim is", () => {
    const aim = { what: "meet", on: "2027-01-02" };
    expect(untilWords(aim, "2026-11-27")).toBe("5 weeks to the meet, Sat, 2 Jan 2027");
    expect(untilWords(aim, "2027-01-01")).toBe("1 day to the meet, Sat, 2 Jan 2027");
    expect(untilWords(aim, "2027-01-03")).toBe("The meet was on Sat, 2 Jan 2027");
  });
});
