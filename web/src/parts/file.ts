/** Hand the lifter a text, or whatever else, as a file of that name, the way browsers save files. */
export function saveFile(name: string, content: string | Blob, type = "text/plain") {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(typeof content === "string" ? new Blob([content], { type }) : content);
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
