import { AxisLeft } from "@visx/axis";
import { GridRows } from "@visx/grid";
import type { ComponentProps } from "react";

/** How the numbers along a plot are written. */
export const TICK = { className: "fill-faint", fontSize: 13, fontFamily: "inherit" };

/** The hairlines of a plot with their numbers to the left. */
export function Levels({
  scale,
  left,
  width,
  many,
}: {
  scale: ComponentProps<typeof AxisLeft>["scale"] & ComponentProps<typeof GridRows>["scale"];
  left: number;
  width: number;
  many: number;
}) {
  return (
    <>
      <GridRows scale={scale} left={left} width={width} numTicks={many} stroke="var(--hairline)" />
      <AxisLeft scale={scale} left={left} numTicks={many} hideAxisLine hideTicks tickLabelProps={TICK} />
    </>
  );
}
