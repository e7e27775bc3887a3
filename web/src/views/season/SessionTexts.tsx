import { fullDate } from "../dates";

/** The sessions of a week as they would be, each by its lines; one without any is done with the others. */
export function SessionTexts({
  of,
  withDays = false,
}: {
  of: { title: string; on: string; written: string | null }[];
  withDays?: boolean;
}) {
  return (
    <ul className="mt-1">
      {of.map(({ title, on, written }) => (
        <li key={title} className="border-t border-hairline py-1.5">
          <span className="font-semibold">{title}</span>
          {withDays && <span className="ml-2 text-faint">{fullDate(on).split(",")[0]}</span>}
          <span className="block text-sm whitespace-pre-line text-faint">
            {written === null ? "put aside, its main lift done with the others" : linesOf(written)}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** The lines of a session without its title. */
const linesOf = (written: string) => written.split("\n").slice(1).join("\n").trim();
