import { csvFormatRows } from "d3-dsv";

export type Cell = string | number | null;

/** What a drawing takes from the style sheet, and a file must bring along. */
const STYLES = [
  "fill",
  "fill-opacity",
  "stroke",
  "stroke-opacity",
  "stroke-width",
  "stroke-dasharray",
  "opacity",
  "font-family",
  "font-size",
  "font-weight",
  "text-anchor",
];
const SHARPNESS = 2;
/** How a text begins that a spreadsheet would work out. */
const RUNS = /^[=+\-@\t\r]/;

/** A table as CSV. A text that a spreadsheet would run is kept a text by a mark before it; numbers are numbers. */
export function csvOf(columns: string[], rows: Cell[][]): string {
  const cell = (value: Cell) =>
    typeof value === "string" ? (RUNS.test(value) ? `'${value}` : value) : String(value ?? "");
  return `${csvFormatRows([columns, ...rows].map((row) => row.map(cell)))}\n`;
}

/** A drawing by itself, as it looks now, on the paper it stands on. */
export function svgOf(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const originals = [svg, ...svg.querySelectorAll("*")];
  [copy, ...copy.querySelectorAll("*")].forEach((element, at) => {
    const original = originals[at];
    if (!original) return;
    const style = getComputedStyle(original);
    for (const name of STYLES) element.setAttribute(name, style.getPropertyValue(name));
    element.removeAttribute("class");
    element.removeAttribute("style");
  });
  const { width, height } = svg.getBoundingClientRect();
  const paper = document.createElementNS(svg.namespaceURI, "rect");
  paper.setAttribute("width", "100%");
  paper.setAttribute("height", "100%");
  paper.setAttribute("fill", getComputedStyle(document.body).backgroundColor);
  copy.prepend(paper);
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  copy.setAttribute("width", String(width));
  copy.setAttribute("height", String(height));
  return new XMLSerializer().serializeToString(copy);
}

/** The same as a picture, at twice its size. */
export async function pngOf(svg: SVGSVGElement): Promise<Blob> {
  const { width, height } = svg.getBoundingClientRect();
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svgOf(svg))}`;
  await image.decode();
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(width * SHARPNESS);
  canvas.height = Math.round(height * SHARPNESS);
  canvas.getContext("2d")?.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error("The picture could not be made."))),
      "image/png",
    ),
  );
}
