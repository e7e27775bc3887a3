// Runs before the first paint, so that a dim gym never sees a white flash.
const kept = localStorage.getItem("fortis.theme");
const dark = kept ? kept === "dark" : matchMedia("(prefers-color-scheme: dark)").matches;
document.documentElement.dataset.theme = dark ? "dark" : "light";
