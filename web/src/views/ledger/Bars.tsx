import { scaleLinear } from "@visx/scale";
import { max } from "d3-array";
import { Figure } from "@/parts/Figure";
import { useWidth } from "@/parts/useWidth";
import { plain } from "@/score/words";

/** A number by its name, with the range that is usual, where one is known. */
export interface Bar {
  name: string;
  count: number;
  low?: number | undefined;
  high?: number | undefined;
}

const ROW = 30;
const NAME = 116;
const NUMBER = 44;

/** Numbers side by side as bars, each over the range that is usual for the lifter. */
export function Bars({ title, what, bars }: { title: string; what: string; bars: Bar[] }) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const most = max(bars, (bar) => Math.max(bar.count, bar.high ?? 0)) || 1;
  const x = scaleLinear({ domain: [0, most], range: [NAME, Math.max(width - NUMBER, NAME + 20)] });
  const ranged = bars.some((bar) => bar.high !== undefined);
  return (
    <Figure
      title={title}
      numbers={{
        columns: ["", what, ...(ranged ? ["usual from", "to"] : [])],
        rows: bars.map((bar) => [
          bar.name,
          bar.count,
          ...(ranged ? [bar.low ?? null, bar.high ?? null] : []),
        ]),
      }}
    >
      <div ref={ref}>
        <svg
          width={width}
          height={bars.length * ROW + 6}
          role="img"
          aria-label={`${title}: ${bars.map((bar) => `${bar.name} ${plain(bar.count)}`).join(", ")}`}
        >
          <line x1={NAME} x2={NAME} y1={0} y2={bars.length * ROW} className="stroke-hairline" />
          {bars.map((bar, at) => {
            const middle = at * ROW + ROW / 2;
            return (
              <g key={bar.name}>
                {bar.high !== undefined && (
                  <rect
                    x={x(bar.low ?? 0)}
                    y={at * ROW + 2}
                    width={Math.max(x(bar.high) - x(bar.low ?? 0), 3)}
                    height={ROW - 4}
                    className="fill-rest"
                    fillOpacity={0.16}
                  />
                )}
                <rect
                  x={NAME}
                  y={middle - 6}
                  width={Math.max(x(bar.count) - NAME, 1)}
                  height={12}
                  className="fill-ink"
                />
                <text x={NAME - 10} y={middle + 5} textAnchor="end" fontSize={15} className="fill-ink">
                  {bar.name}
                </text>
                <text x={x(bar.count) + 8} y={middle + 5} fontSize={15} fontWeight={700} className="fill-ink">
                  {plain(bar.count)}
                </text>
              </g>
            );
          })}
        </svg>
      </div>
    </Figure>
  );
}
