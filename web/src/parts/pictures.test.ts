import { expect, test } from "vitest";
import { csvOf } from "./pictures";

test("a table keeps commas and quotes, and no text in it is run by a spreadsheet", () => {
  const rows = [
    ['Row, "seal"', 1.5, null],
    ["=HYPERLINK(A1)", -2, "@now"],
    ["+1", 0, "-1"],
  ];
  expect(csvOf(["Lift", "kg", "note"], rows)).toBe(
    `Lift,kg,note\n"Row, ""seal""",1.5,\n'=HYPERLINK(A1),-2,'@now\n'+1,0,'-1\n`,
  );
});
