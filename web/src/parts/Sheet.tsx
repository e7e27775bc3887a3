import { clsx } from "clsx";
import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

/** A dialog over the view: its title, what it is about, and the way out. */
export function Sheet({
  title,
  open = true,
  onClose,
  close = "Close",
  className,
  children,
}: {
  title: string;
  open?: boolean;
  onClose: () => void;
  close?: string;
  /** Where it stands, and how large it may get. */
  className: string;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={(opened) => !opened && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-shade/55" />
        <Dialog.Content
          aria-describedby={undefined}
          className={clsx(
            "fixed z-30 mx-auto overflow-auto rounded-card border border-hairline bg-panel p-6 shadow-2xl",
            className,
          )}
        >
          <Dialog.Title className="text-xl font-bold">{title}</Dialog.Title>
          {children}
          <Dialog.Close className="mt-4 min-h-11 underline underline-offset-4">{close}</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
