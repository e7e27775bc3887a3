import { clsx } from "clsx";
import type { ButtonHTMLAttributes, ReactNode } from "react";

const LOOK = {
  strong: "bg-ink text-paper border-ink",
  plain: "border-ink text-ink hover:bg-hairline/40",
  quiet: "border-hairline text-ink hover:border-ink",
  rest: "bg-rest-text text-rest-panel border-rest-text",
  onRest: "border-rest-text/50 text-rest-text hover:border-rest-text",
};

/** A button, with its key shown where it has one. */
export function Button({
  look = "plain",
  hotkey,
  className,
  children,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & {
  look?: keyof typeof LOOK;
  hotkey?: string;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      {...rest}
      className={clsx(
        "inline-flex min-h-11 items-center justify-center gap-3 rounded-card border px-4 py-2 font-bold disabled:opacity-45",
        LOOK[look],
        className,
      )}
    >
      {children}
      {hotkey && <Key>{hotkey}</Key>}
    </button>
  );
}

/** A key of the keyboard. Left out on screens without one. */
export function Key({ children }: { children: ReactNode }) {
  return (
    <kbd className="hidden rounded-[2px] border border-current px-1.5 text-xs font-semibold pointer-fine:inline">
      {children}
    </kbd>
  );
}
