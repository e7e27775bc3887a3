import {
  createContext,
  lazy,
  type ReactNode,
  Suspense,
  useCallback,
  useContext,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
} from "react";
import { useHotkeys } from "react-hotkeys-hook";
import type { Shortcut } from "./Keys";

const Keys = lazy(() => import("./Keys"));

const Registry = createContext<(shortcut: Shortcut) => () => void>(() => () => {});

/** Keys work while one of these has the focus; typing into a field stays typing. */
const ROLES = ["radio" as const];

/** Whether Space or Enter is meant for the button that was reached by key. */
const isPressing = (event: KeyboardEvent) =>
  (event.key === " " || event.key === "Enter") &&
  event.target instanceof Element &&
  event.target.matches("button:focus-visible:not([role=radio]), a:focus-visible, summary:focus-visible");

/** A key that does something while the calling view is shown, and is listed under `?`. */
export function useShortcut(
  keys: string,
  shown: string,
  does: string,
  run: (event: KeyboardEvent) => void,
  on = true,
) {
  const register = useContext(Registry);
  const options = { preventDefault: true, enabled: on, enableOnFormTags: ROLES, ignoreEventWhen: isPressing };
  const latest = useRef(run);
  useLayoutEffect(() => {
    latest.current = run;
  });
  useHotkeys(keys, (event) => latest.current(event), options, [on]);
  useEffect(() => register({ keys, shown, does }), [register, keys, shown, does]);
}

/** Lets go of a button that was pressed by mouse or thumb, so that the next Space is not another press of it. */
function letGo(event: MouseEvent) {
  if (event.detail > 0) (event.target as Element).closest<HTMLElement>("button")?.blur();
}

/** Keeps the list of keys, and shows it on `?`. */
export function Shortcuts({ children }: { children: ReactNode }) {
  const [registered] = useState(() => new Set<Shortcut>());
  const [shown, setShown] = useState<Shortcut[] | null>(null);
  const register = useCallback(
    (shortcut: Shortcut) => {
      registered.add(shortcut);
      return () => void registered.delete(shortcut);
    },
    [registered],
  );
  useEffect(() => {
    document.addEventListener("click", letGo);
    return () => document.removeEventListener("click", letGo);
  }, []);
  useHotkeys("?", () => setShown([...registered, { keys: "?", shown: "?", does: "This list" }]), {
    useKey: true,
  });
  return (
    <Registry value={register}>
      {children}
      {shown && (
        <Suspense>
          <Keys list={shown} onClose={() => setShown(null)} />
        </Suspense>
      )}
    </Registry>
  );
}
