import { useDeferredValue } from "react";

/** False while a view is first drawn, true right after: what is not seen at once, or asked for later, waits for it. */
export const useDrawn = (): boolean => useDeferredValue(true, false);
