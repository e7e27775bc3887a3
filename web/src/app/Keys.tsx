import { Dialog } from "radix-ui";
import { Key } from "@/parts/Button";

/** A key, how it is shown, and what it does. */
export interface Shortcut {
  keys: string;
  shown: string;
  does: string;
}

/** Every key and what it does. */
export default function Keys({ list, onClose }: { list: Shortcut[]; onClose: () => void }) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-shade/55" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-x-4 top-[12vh] z-30 mx-auto max-h-[76vh] max-w-3xl overflow-auto rounded-card border border-hairline bg-panel p-6 shadow-2xl"
        >
          <Dialog.Title className="text-xl font-bold">Keys</Dialog.Title>
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
            Tab and Shift Tab reach everything else, arrow keys move inside a row of notes and in menus,
            Escape closes what is open.
          </p>
          <Dialog.Close className="mt-3 min-h-11 underline underline-offset-4">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
