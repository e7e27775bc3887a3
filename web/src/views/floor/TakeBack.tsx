import { Redo2, Undo2 } from "lucide-react";
import type { ReactNode } from "react";
import { Key } from "@/parts/Button";
import type { Playing } from "./useSession";

/** Undo, and do it again after all: bouts, corrections and changes of the plan alike. */
export function TakeBack({ playing }: { playing: Playing }) {
  const { canUndo, canRedo, acts } = playing;
  return (
    <span className="-mt-2.5 flex shrink-0 gap-4">
      {canUndo && (
        <Turn onClick={acts.undo} hotkey="U">
          <Undo2 size={16} aria-hidden /> Undo
        </Turn>
      )}
      {canRedo && (
        <Turn onClick={acts.redo} hotkey="⇧U">
          <Redo2 size={16} aria-hidden /> Redo
        </Turn>
      )}
    </span>
  );
}

function Turn({ onClick, hotkey, children }: { onClick: () => void; hotkey: string; children: ReactNode }) {
  return (
    <button
      type="button"
      onClick={onClick}
      className="flex min-h-11 items-center gap-2 text-[15px] text-faint hover:text-ink"
    >
      {children} <Key>{hotkey}</Key>
    </button>
  );
}
