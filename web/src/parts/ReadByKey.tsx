import type { ReactNode, Ref } from "react";

/** A plot that is read with the arrow keys, from one thing to the next. What it tells belongs inside. */
export function ReadByKey({
  ref,
  label,
  onStep,
  children,
}: {
  ref: Ref<HTMLDivElement>;
  label: string;
  /** Called with -1 for the one before, 1 for the next. */
  onStep: (by: number) => void;
  children: ReactNode;
}) {
  return (
    // biome-ignore lint/a11y/useSemanticElements: a plot that is read by key, no group of fields
    <div
      ref={ref}
      role="group"
      aria-label={label}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: it is read by key
      tabIndex={0}
      onKeyDown={(event) => {
        const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
        if (!by) return;
        event.preventDefault();
        onStep(by);
      }}
    >
      {children}
    </div>
  );
}
