import { clsx } from "clsx";
import type { InputHTMLAttributes } from "react";

/** A field with its name above it. What is typed is handed over when the field is left, or on Enter. */
export function Field({
  label,
  value,
  onKeep,
  className,
  wide = false,
  ...rest
}: Omit<InputHTMLAttributes<HTMLInputElement>, "onChange" | "value"> & {
  label: string;
  value: string | number;
  onKeep: (typed: string) => void;
  wide?: boolean;
}) {
  return (
    <label className={clsx("block text-[15px]", className)}>
      <span className="block text-faint">{label}</span>
      <input
        key={value}
        defaultValue={value}
        onBlur={(event) => event.target.value !== String(value) && onKeep(event.target.value)}
        onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
        className={clsx(
          "min-h-11 rounded-card border border-hairline bg-paper px-3 font-semibold",
          wide ? "w-full" : "w-20",
        )}
        {...rest}
      />
    </label>
  );
}

/** One of a few, picked from a list, with its name beside the list or above it. */
export function Choice<T extends string>({
  label,
  of,
  value,
  onPick,
  above = false,
}: {
  label: string;
  of: readonly (readonly [T, string])[];
  value: T;
  onPick: (picked: T) => void;
  above?: boolean;
}) {
  return (
    <label className={clsx("flex", above ? "flex-col" : "items-center justify-between gap-3")}>
      {above ? <span className="text-faint">{label}</span> : label}
      <select
        value={value}
        onChange={(event) => onPick(event.target.value as T)}
        className={clsx(
          "min-h-11 rounded-card border border-hairline",
          above ? "min-w-0 bg-panel px-2" : "bg-paper px-3",
        )}
      >
        {of.map(([each, words]) => (
          <option key={each} value={each}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}
