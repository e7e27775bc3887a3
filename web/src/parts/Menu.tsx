import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";

/** A button, or a link where `quiet`, that opens a short list of things to do. */
export function Menu({ trigger, children }: { trigger: ReactNode; children: ReactNode }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={4}
          className="z-20 max-h-[70vh] max-w-[92vw] overflow-auto rounded-card border border-hairline bg-panel text-[15px] shadow-xl"
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** Taken by a press on it, and not by letting go of one that began elsewhere: what lies under a finger may move. */
export function MenuItem({ onSelect, children }: { onSelect: () => void; children: ReactNode }) {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      onPointerUp={(event) => event.preventDefault()}
      className="flex min-h-11 cursor-pointer items-center px-4 outline-none data-highlighted:bg-ink data-highlighted:text-paper"
    >
      {children}
    </DropdownMenu.Item>
  );
}

export const MenuHeading = ({ children }: { children: ReactNode }) => (
  <DropdownMenu.Label className="px-4 pt-3 pb-1 text-sm text-faint">{children}</DropdownMenu.Label>
);
