import { AxisBottom } from "@visx/axis";
import { scaleLinear } from "@visx/scale";
import { LinePath } from "@visx/shape";
import { type PointerEvent, useState } from "react";
import type { Schemas } from "@/data/client";
import { Figure } from "@/parts/Figure";
import { ReadByKey } from "@/parts/ReadByKey";
import { useWidth } from "@/parts/useWidth";
import { Levels, TICK } from "./Levels";

const HEIGHT = 230;
const EDGE = { top: 10, right: 8, bottom: 28, left: 34 };
const TESTED = 80;
/** So many reps are told until others are asked for. */
const FIRST_READ = 5;

/** The lifter's rep curve over the usual one, with the own fresh sets on it. */
export function RepCurve({ found }: { found: Schemas["LiftStrength"] }) {
  const [ref, width] = useWidth<HTMLDivElement>(360);
  const { curve, observations } = found;
  const x = scaleLinear({ domain: [1, 20], range: [EDGE.left, width - EDGE.right] });
  const y = scaleLinear({ domain: [45, 103], range: [HEIGHT - EDGE.bottom, EDGE.top] });
  const fresh = observations.filter((each) => each.kind === "fresh" && each.reps_to_failure !== null);
  const [own, usual] = [repsAt(curve, "share"), repsAt(curve, "usual")];
  const [picked, pick] = useState<number | null>(null);
  const at = picked ?? FIRST_READ - 1;
  const point = ({ currentTarget, clientX }: PointerEvent<SVGSVGElement>) => {
    const reps = x.invert(clientX - currentTarget.getBoundingClientRect().left);
    pick(Math.min(Math.max(Math.round(reps) - 1, 0), curve.length - 1));
  };
  const step = (by: number) => pick(Math.min(Math.max(at + by, 0), curve.length - 1));
  const read = curve[at];
  return (
    <section aria-label="Your rep curve">
      <Figure
        small
        title="Your rep curve"
        numbers={{
          columns: ["Reps to failure", "yours, % of the max", "usual, %"],
          rows: curve.map(({ reps, share, usual }) => [reps, percent(share), percent(usual)]),
        }}
      >
        <ReadByKey
          ref={ref}
          label="Your rep curve; arrows go from one number of reps to the next"
          onStep={step}
        >
          <p className="text-faint">
            You have {own} reps with {TESTED} % of your max
            {own === usual ? ", as most lifters." : `; most lifters ${usual}.`}
          </p>
          <svg
            width={width}
            height={HEIGHT}
            role="img"
            onPointerMove={point}
            onPointerDown={point}
            aria-label={`Reps to failure by share of the max: ${own} at ${TESTED} %`}
          >
            <Levels scale={y} left={EDGE.left} width={width - EDGE.left - EDGE.right} many={5} />
            <LinePath
              data={curve}
              x={(point) => x(point.reps)}
              y={(point) => y(100 * point.usual)}
              className="stroke-faint"
              strokeDasharray="3 4"
            />
            <LinePath
              data={curve}
              x={(point) => x(point.reps)}
              y={(point) => y(100 * point.share)}
              className="stroke-ink"
              strokeWidth={2}
            />
            {read && (
              <line
                x1={x(read.reps)}
                x2={x(read.reps)}
                y1={y(100 * read.share)}
                y2={HEIGHT - EDGE.bottom}
                className="stroke-hairline"
              />
            )}
            {fresh.map((each) => (
              <ellipse
                key={each.session_id}
                cx={x(Math.min(each.reps_to_failure ?? 1, 20))}
                cy={y(Math.min(100 * each.load_share, 103))}
                rx={4}
                ry={3.5}
                className="fill-ink"
                fillOpacity={0.6}
              />
            ))}
            <AxisBottom
              scale={x}
              top={HEIGHT - EDGE.bottom}
              tickValues={[1, 3, 5, 8, 10, 12, 15, 20]}
              hideAxisLine
              hideTicks
              tickLabelProps={TICK}
            />
          </svg>
          <p aria-live="polite" className="text-[15px]">
            {read && (
              <>
                <b>{read.reps === 1 ? "1 rep" : `${read.reps} reps`}</b>: {percent(read.share)} % of your max,
                of most lifters {percent(read.usual)} %.
              </>
            )}
          </p>
          <p className="text-sm text-faint">
            Per cent of the max by reps to failure. Dots are your fresh sets as your calls are read, dashed is
            most lifters.
          </p>
        </ReadByKey>
      </Figure>
    </section>
  );
}

const percent = (share: number) => Math.round(share * 1000) / 10;

const repsAt = (curve: readonly Schemas["CurvePoint"][], which: "share" | "usual") =>
  curve.filter((point) => 100 * point[which] >= TESTED - 0.5).length;
