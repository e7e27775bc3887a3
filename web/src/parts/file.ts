/** Save what is at an address as a file of that name, the way browsers save files. */
export function saveFrom(address: string, name: string) {
  const link = document.createElement("a");
  link.href = address;
  link.download = name;
  link.click();
}

/** Hand the lifter a text, or whatever else, as a file of that name. */
export function saveFile(name: string, content: string | Blob, type = "text/plain") {
  const address = URL.createObjectURL(typeof content === "string" ? new Blob([content], { type }) : content);
  saveFrom(address, name);
  URL.revokeObjectURL(address);
}
