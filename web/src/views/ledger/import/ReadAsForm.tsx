import { type ReadAs, useReadAs, type WaitingFile } from "@/data/imports";
import { Choice } from "@/parts/Field";
import { Notice, Trouble } from "@/parts/Notice";

type Holds = NonNullable<ReadAs["columns"][number]>;

const HOLDS: [Holds, string][] = [
  ["date", "the day (and time)"],
  ["time", "the time of day"],
  ["session", "the name of the session"],
  ["lift", "the lift"],
  ["setup", "what is worn and used"],
  ["load", "the load"],
  ["unit", "the unit of the load"],
  ["reps", "reps"],
  ["sets", "how many sets"],
  ["set", "the number of the set"],
  ["bout", "the number of the mini-set"],
  ["group", "the number of the superset"],
  ["side", "the side"],
  ["halves", "half reps"],
  ["seconds", "seconds held"],
  ["rir", "reps left in reserve"],
  ["rpe", "RPE"],
  ["ended", "why it ended"],
  ["rest", "seconds of rest before"],
  ["tempo", "the tempo"],
  ["warm-up", "whether it is a warm-up"],
  ["body weight", "body weight"],
  ["bottom load", "the load at the bottom (bands)"],
  ["top load", "the load at the top (bands)"],
  ["note", "a note"],
];

const ENCODINGS: [ReadAs["encoding"], string][] = [
  ["utf-8", "Unicode (UTF-8)"],
  ["utf-16-le", "Unicode (UTF-16, little end first)"],
  ["utf-16-be", "Unicode (UTF-16, big end first)"],
  ["windows-1252", "Western European"],
  ["windows-1250", "Central European"],
  ["mac-roman", "old Macintosh"],
];
const DELIMITERS: [ReadAs["delimiter"], string][] = [
  ["comma", "commas"],
  ["semicolon", "semicolons"],
  ["tab", "tabs"],
  ["bar", "bars |"],
];
const DECIMALS: [ReadAs["decimal"], string][] = [
  [".", "a point: 102.5"],
  [",", "a comma: 102,5"],
];
const DATES: [ReadAs["dates"], string][] = [
  ["day, month, year", "day, month, year"],
  ["month, day, year", "month, day, year"],
  ["year, month, day", "year, month, day"],
];
const UNITS: [ReadAs["unit"], string][] = [
  ["kg", "kilograms"],
  ["lb", "pounds"],
];

const BOX = "min-h-11 min-w-0 rounded-card border border-hairline bg-panel px-2";

/** How a file is read: guessed, and changed here. */
export function ReadAsForm({ file, readAs }: { file: WaitingFile; readAs: ReadAs }) {
  const tell = useReadAs();
  const told = tell.isPending ? tell.variables.told : readAs;
  const put = (part: Partial<ReadAs>) => tell.mutate({ id: file.id, told: { ...told, ...part } });
  const hold = (at: number, holds: Holds | null) =>
    put({ columns: told.columns.map((was, column) => (column === at ? holds : was === holds ? null : was)) });
  return (
    <section aria-labelledby="read-as">
      <h2 id="read-as" className="text-xl font-bold">
        How it is read
      </h2>
      {file.doubts.length > 0 && (
        <div className="mt-2 space-y-2">
          {file.doubts.map((doubt) => (
            <Notice key={doubt}>{doubt}</Notice>
          ))}
        </div>
      )}
      <table className="mt-3 w-full border-t border-ink text-[15px]">
        <thead className="sr-only">
          <tr>
            <th>Column and its first rows</th>
            <th>Holds</th>
          </tr>
        </thead>
        <tbody>
          {file.names.map((name, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: two columns may have one name
            <tr key={at} className="border-b border-hairline">
              <th scope="row" className="max-w-0 py-1 pr-3 text-left font-semibold">
                <span className="block truncate">{name}</span>
                <span className="block truncate text-sm font-normal text-faint">
                  {file.sample.map((cells) => cells[at] || "–").join(", ")}
                </span>
              </th>
              <td className="w-1/2 py-1 sm:w-56">
                <select
                  aria-label={`${name} holds`}
                  value={told.columns[at] ?? ""}
                  onChange={(event) => hold(at, (event.target.value || null) as Holds | null)}
                  className={`${BOX} w-full ${told.columns[at] ? "" : "text-faint"}`}
                >
                  <option value="">nothing of use</option>
                  {HOLDS.map(([holds, words]) => (
                    <option key={holds} value={holds}>
                      {words}
                    </option>
                  ))}
                </select>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-4 grid grid-cols-2 gap-3 text-[15px]">
        <Choice
          above
          label="Loads without a unit are"
          of={UNITS}
          value={told.unit}
          onPick={(unit) => put({ unit })}
        />
        <Choice above label="Dates are" of={DATES} value={told.dates} onPick={(dates) => put({ dates })} />
        <Choice
          above
          label="Decimals follow"
          of={DECIMALS}
          value={told.decimal}
          onPick={(decimal) => put({ decimal })}
        />
        <Choice
          above
          label="Cells are parted by"
          of={DELIMITERS}
          value={told.delimiter}
          onPick={(delimiter) => put({ delimiter })}
        />
        <Choice
          above
          label="Written in"
          of={ENCODINGS}
          value={told.encoding}
          onPick={(encoding) => put({ encoding })}
        />
      </div>
      {tell.error && (
        <div className="mt-3">
          <Trouble error={tell.error} />
        </div>
      )}
    </section>
  );
}
