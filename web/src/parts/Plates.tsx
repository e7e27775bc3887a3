import type { Schemas } from "@/data/client";
import { plain } from "@/score/words";

type Settled = Schemas["Settled"];

/** What is on the bar, in words: 25 25 20 5 each side on the 20 kg bar. Empty where nothing is built. */
export function buildWords(settled: Settled): string {
  if (settled.bar) return barWords(settled.bar, settled.sleeve);
  if (settled.body && settled.sleeve.length) return `${settled.sleeve.map(plain).join(" ")} on the belt.`;
  return "";
}

const barWords = (bar: string, sleeve: readonly number[]): string =>
  sleeve.length ? `Each side ${sleeve.map(plain).join(" ")} on the ${bar}.` : `The ${bar} alone.`;

/** One sleeve of the bar, drawn from the collar outwards. */
export function Plates({
  bar,
  sleeve,
  className,
}: {
  bar: string;
  sleeve: readonly number[];
  className?: string;
}) {
  const tall = (kg: number) => 44 + Math.min(kg, 25) * 2.4;
  const broad = (kg: number) => (kg < 5 ? 20 : 17) + Math.min(kg, 25) * 0.24;
  let x = 66;
  const plates = sleeve.map((kg, place) => {
    const plate = { kg, x, width: broad(kg), height: tall(kg), key: `${place}-${kg}` };
    x += plate.width + 2;
    return plate;
  });
  return (
    <svg viewBox="0 0 200 112" className={className} role="img" aria-label={barWords(bar, sleeve)}>
      <rect x={0} y={52} width={200} height={8} className="fill-faint opacity-50" />
      <rect x={58} y={48} width={6} height={16} className="fill-ink" />
      {plates.map((plate) => (
        <g key={plate.key}>
          <rect
            x={plate.x}
            y={56 - plate.height / 2}
            width={plate.width}
            height={plate.height}
            rx={2}
            className="fill-panel stroke-ink"
            strokeWidth={1.5}
          />
          <text
            x={plate.x + plate.width / 2}
            y={60}
            textAnchor="middle"
            className="fill-ink text-[11px] font-bold [font-stretch:75%]"
          >
            {plain(plate.kg)}
          </text>
        </g>
      ))}
    </svg>
  );
}
