import { Key } from "@/parts/Button";
import { Sheet } from "@/parts/Sheet";

/** A key, how it is shown, and what it does. */
export interface Shortcut {
  keys: string;
  shown: string;
  does: string;
}

/** Every key and what it does. */
export default function Keys({ list, onClose }: { list: Shortcut[]; onClose: () => void }) {
  return (
    <Sheet title="Keys" onClose={onClose} className="inset-x-4 top-[12vh] max-h-[76vh] max-w-3xl">
      <dl className="mt-4 gap-x-10 sm:columns-2">
        {list.map((each) => (
          <div key={each.keys} className="flex break-inside-avoid justify-between gap-4 py-1">
            <dt>{each.does}</dt>
            <dd className="shrink-0">
              <Key>{each.shown}</Key>
            </dd>
          </div>
        ))}
      </dl>
      <p className="mt-4 text-faint">
        Tab and Shift Tab reach everything else, arrow keys move inside a row of notes and in menus, Escape
        closes what is open.
      </p>
    </Sheet>
  );
}
