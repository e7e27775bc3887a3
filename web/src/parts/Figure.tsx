import { Download } from "lucide-react";
import { type ReactNode, useRef } from "react";
import { saveFile } from "./file";
import { Menu, MenuItem } from "./Menu";
import { type Cell, csvOf, pngOf, svgOf } from "./pictures";

/** What a plot shows, in numbers: what its columns are called, and its rows. */
export interface Numbers {
  columns: string[];
  rows: Cell[][];
}

/** A plot with its name, the numbers behind it, and ways to take it along: as a drawing, a picture or a table. */
export function Figure({
  title,
  numbers,
  small = false,
  children,
}: {
  title: string;
  numbers: Numbers;
  /** Named in small, where it stands beside something bigger. */
  small?: boolean;
  /** One drawing, with whatever belongs beside it. */
  children: ReactNode;
}) {
  const body = useRef<HTMLDivElement>(null);
  const saved = async (kind: "svg" | "png" | "csv") => {
    const name = `${title.toLowerCase().replaceAll(/\W+/g, "-")}.${kind}`;
    const svg = body.current?.querySelector("svg");
    if (kind === "csv") saveFile(name, csvOf(numbers.columns, numbers.rows), "text/csv");
    else if (svg && kind === "svg") saveFile(name, svgOf(svg), "image/svg+xml");
    else if (svg) saveFile(name, await pngOf(svg), "image/png");
  };
  return (
    <figure className="m-0">
      <figcaption className="flex items-center justify-between gap-4">
        <h2 className={small ? "font-bold" : "text-xl font-bold"}>{title}</h2>
        <Menu
          trigger={
            <button
              type="button"
              aria-label={`Save ${title.toLowerCase()}`}
              className="grid size-11 place-items-center text-faint hover:text-ink"
            >
              <Download size={18} aria-hidden />
            </button>
          }
        >
          <MenuItem onSelect={() => void saved("svg")}>Drawing (SVG)</MenuItem>
          <MenuItem onSelect={() => void saved("png")}>Picture (PNG)</MenuItem>
          <MenuItem onSelect={() => void saved("csv")}>Numbers (CSV)</MenuItem>
        </Menu>
      </figcaption>
      <div ref={body}>{children}</div>
      <details className="text-[15px]">
        <summary className="min-h-11 cursor-pointer py-2.5 underline underline-offset-4">The numbers</summary>
        <div className="overflow-x-auto">
          <table className="w-full">
            <caption className="sr-only">{title}</caption>
            <thead className="text-right text-sm text-faint">
              <tr>
                {numbers.columns.map((column, at) => (
                  <th key={column} scope="col" className={at ? "pl-4 font-normal" : "text-left font-normal"}>
                    {column}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {numbers.rows.map(([name, ...cells]) => (
                <tr key={String(name)} className="border-t border-hairline">
                  <th scope="row" className="py-1 text-left font-normal whitespace-nowrap">
                    {name}
                  </th>
                  {cells.map((cell, at) => (
                    <td key={numbers.columns[at + 1]} className="py-1 pl-4 text-right whitespace-nowrap">
                      {cell ?? "–"}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </details>
    </figure>
  );
}
