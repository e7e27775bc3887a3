import { Dialog } from "radix-ui";
import {
  createContext,
  type ReactNode,
  useContext,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { Key } from "@/parts/Button";

interface Shortcut {
  keys: string;
  shown: string;
  does: string;
}

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
  const [list, setList] = useState<Shortcut[]>([]);
  const [open, setOpen] = useState(false);
  const register = useMemo(
    () => (shortcut: Shortcut) => {
      setList((before) => [...before, shortcut]);
      return () => setList((before) => before.filter((each) => each !== shortcut));
    },
    [],
  );
  useEffect(() => {
    document.addEventListener("click", letGo);
    return () => document.removeEventListener("click", letGo);
  }, []);
  useHotkeys("?", () => setOpen(true), { useKey: true });
  return (
    <Registry value={register}>
      {children}
      <Dialog.Root open={open} onOpenChange={setOpen}>
        <Dialog.Portal>
          <Dialog.Overlay className="fixed inset-0 z-30 bg-shade/55" />
          <Dialog.Content
            aria-describedby={undefined}
            className="fixed inset-x-4 top-[12vh] z-30 mx-auto max-h-[76vh] max-w-3xl overflow-auto rounded-card border border-hairline bg-panel p-6 shadow-2xl"
          >
            <Dialog.Title className="text-xl font-bold">Keys</Dialog.Title>
            <dl className="mt-4 gap-x-10 sm:columns-2">
              {[...list, { keys: "?", shown: "?", does: "This list" }].map((each) => (
                <div key={each.keys} className="flex break-inside-avoid justify-between gap-4 py-1">
                  <dt>{each.does}</dt>
                  <dd className="shrink-0">
                    <Key>{each.shown}</Key>
                  </dd>
                </div>
              ))}
            </dl>
            <p className="mt-4 text-faint">
              Tab and Shift Tab reach everything else, arrow keys move inside a row of notes and in menus,
              Escape closes what is open.
            </p>
            <Dialog.Close className="mt-3 min-h-11 underline underline-offset-4">Close</Dialog.Close>
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
    </Registry>
  );
}
