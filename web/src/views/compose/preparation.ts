/** How a line begins that says what is done before the first lift. */
export const PREP = /^\s*prep\s*:/i;
const USUAL = "prep: drills 5 min";

/** A session's text with a line for what is done before the first lift, and where it stands: one it has, or a new one. */
export function withPreparation(text: string): { text: string; line: number } {
  const lines = text.split("\n");
  const there = lines.findIndex((line) => PREP.test(line));
  if (there >= 0) return { text, line: there + 1 };
  const at = lines[0]?.startsWith("#") ? 1 : 0;
  return { text: [...lines.slice(0, at), USUAL, ...lines.slice(at)].join("\n"), line: at + 1 };
}
