import type { Schemas } from "@/data/client";
import { plain } from "@/score/words";

const POUND = 0.45359237;

export const plateKg = (plate: Schemas["Plate-Output"]) => plate.amount * (plate.unit === "lb" ? POUND : 1);

/** What is on the rack, drawn: every plate there is, the bars under them. */
export function Rack({ kit }: { kit: Schemas["Kit-Output"] }) {
  let x = 12;
  const drawn = kit.plates.map((plate) => {
    const kg = plateKg(plate);
    const width = 13 + Math.min(kg, 25) * 0.3;
    const height = 40 + Math.min(kg, 25) * 3;
    const from = x;
    x += plate.count * (width + 2) + 16;
    return { plate, width, height, from };
  });
  const width = Math.max(x, 320);
  const words = kit.plates.map((plate) => `${plate.count} × ${plain(plate.amount)} ${plate.unit}`).join(", ");
  return (
    <div className="overflow-x-auto rounded-card border border-hairline bg-panel p-3">
      <svg
        viewBox={`0 0 ${width} ${152 + kit.bars.length * 26}`}
        width={width}
        role="img"
        aria-label={`On the rack: ${words || "no plates"}; ${kit.bars.map((bar) => bar.name).join(", ") || "no bar"}`}
        className="max-w-none"
      >
        {drawn.map(({ plate, width: broad, height, from }) => (
          <g key={`${plate.amount}${plate.unit}`}>
            {Array.from({ length: plate.count }, (_, place) => (
              <rect
                // biome-ignore lint/suspicious/noArrayIndexKey: plates of one weight have no identity but their place
                key={place}
                x={from + place * (broad + 2)}
                y={118 - height}
                width={broad}
                height={height}
                rx={2}
                strokeWidth={1.5}
                className={
                  plate.count % 2 && place === plate.count - 1
                    ? "fill-transparent stroke-faint [stroke-dasharray:3_3]"
                    : "fill-paper stroke-ink"
                }
              />
            ))}
            <text
              x={from + (plate.count * (broad + 2)) / 2}
              y={136}
              textAnchor="middle"
              className="fill-ink text-[13px] font-bold"
            >
              {plain(plate.amount)}
              {plate.unit === "lb" ? " lb" : ""}
            </text>
          </g>
        ))}
        <line x1={4} x2={width - 4} y1={119} y2={119} className="stroke-ink" strokeWidth={2} />
        {kit.bars.map((bar, place) => (
          <g key={bar.name} transform={`translate(12 ${162 + place * 26})`}>
            <rect y={-3} width={190} height={6} className="fill-faint opacity-60" />
            <rect x={36} y={-6} width={4} height={12} className="fill-ink" />
            <rect x={150} y={-6} width={4} height={12} className="fill-ink" />
            <text x={204} y={5} className="fill-ink text-[14px]">
              {bar.name}
              {bar.count > 1 ? ` × ${bar.count}` : ""}
              {bar.collar_kg > 0 ? `, collars ${plain(bar.collar_kg)} kg each` : ""}
            </text>
          </g>
        ))}
      </svg>
    </div>
  );
}
