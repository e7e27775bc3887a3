/** Hand the lifter a text as a file of that name, the way browsers save files. */
export function saveFile(name: string, text: string, type = "text/plain") {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
