/** Numbers as typed: `10 12,5 15` or `10-30 by 2.5`. Null where something is no number. */
export function readNumbers(text: string): number[] | null {
  const range =
    /^\s*(\d+(?:[.,]\d+)?)\s*(?:-|to)\s*(\d+(?:[.,]\d+)?)\s*(?:by|\/)\s*(\d+(?:[.,]\d+)?)\s*$/.exec(text);
  if (range) {
    const [low, high, step] = range.slice(1).map(number) as [number, number, number];
    if (!(step > 0) || (high - low) / step > 200) return null;
    return Array.from({ length: Math.floor((high - low) / step + 1e-9) + 1 }, (_, at) =>
      rounded(low + at * step),
    );
  }
  const numbers = text
    .split(/[\s;]+|,\s+/)
    .filter(Boolean)
    .map(number);
  return numbers.every((each) => Number.isFinite(each) && each > 0) ? numbers : null;
}

export const number = (text: string): number => Number(text.trim().replace(",", "."));

const rounded = (value: number) => Math.round(value * 1000) / 1000;
