import type { ReactNode } from "react";

/** A list of things of the kit, each a row of fields, with a way to add and to remove. */
export function Listed<T>({
  title,
  items,
  name,
  onAdd,
  onRemove,
  children,
}: {
  title: string;
  items: readonly T[];
  name: (item: T) => string;
  onAdd: () => void;
  onRemove: (at: number) => void;
  children: (item: T, at: number) => ReactNode;
}) {
  return (
    <section aria-label={title}>
      <div className="flex items-center justify-between">
        <h2 className="text-lg font-bold">{title}</h2>
        <button type="button" onClick={onAdd} className="min-h-11 underline underline-offset-4">
          Add
        </button>
      </div>
      <ul className="divide-y divide-hairline border-y border-hairline">
        {items.map((item, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: names change while they are typed; the place is the identity
          <li key={at} className="flex flex-wrap items-end gap-3 py-2.5">
            {children(item, at)}
            <button
              type="button"
              aria-label={`Remove ${name(item)}`}
              onClick={() => onRemove(at)}
              className="min-h-11 px-2 text-[15px] text-faint underline underline-offset-4"
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
