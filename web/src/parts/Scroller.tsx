import { clsx } from "clsx";
import type { ReactNode, Ref } from "react";

/** A box that scrolls sideways where its content is wider, reachable by key as well as by thumb. */
export function Scroller({
  ref,
  label,
  className,
  children,
}: {
  ref?: Ref<HTMLDivElement> | undefined;
  label: string;
  className?: string;
  children: ReactNode;
}) {
  return (
    // biome-ignore lint/a11y/useSemanticElements: a group of marks, no group of fields; and no landmark, there are many
    <div
      ref={ref}
      role="group"
      aria-label={label}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: a box that scrolls must take the focus to be scrolled by key
      tabIndex={0}
      className={clsx("overflow-x-auto overflow-y-hidden", className)}
    >
      {children}
    </div>
  );
}
