const still = matchMedia("(prefers-reduced-motion: reduce)");

/** How to scroll to a place: gliding, or at once for who asked for little motion. */
export const scrolling = (): ScrollBehavior => (still.matches ? "instant" : "smooth");
