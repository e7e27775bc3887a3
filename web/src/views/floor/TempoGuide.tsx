import { useEffect, useRef } from "react";
import type { Step } from "@/data/client";
import { tick } from "./signals";

const PHASES = ["Lower", "Hold low", "Lift", "Hold high"];

/** Where in a tempo a moment falls: the phase, how far into it, and the rep it belongs to. */
export function phaseAt(tempo: NonNullable<Step["tempo"]>, seconds: number) {
  const parts = [tempo.lowering, tempo.bottom, tempo.lifting === "x" ? 1 : tempo.lifting, tempo.top];
  const whole = parts.reduce((sum, part) => sum + part, 0);
  let left = seconds % whole;
  const rep = Math.floor(seconds / whole) + 1;
  for (const [phase, part] of parts.entries()) {
    if (left < part) return { phase, share: left / part, rep, left: Math.ceil(part - left) };
    left -= part;
  }
  return { phase: 3, share: 1, rep, left: 0 };
}

/** The tempo drawn and sounded: down, stay, up, stay. */
export function TempoGuide({
  tempo,
  seconds,
  sound,
}: {
  tempo: NonNullable<Step["tempo"]>;
  seconds: number;
  sound: boolean;
}) {
  const { phase, share, rep, left } = phaseAt(tempo, seconds);
  const last = useRef(-1);
  const at = rep * 4 + phase;
  useEffect(() => {
    if (sound && last.current !== at) tick(phase === 2);
    last.current = at;
  }, [at, phase, sound]);
  const height = phase === 0 ? 1 - share : phase === 1 ? 0 : phase === 2 ? share : 1;
  return (
    <div className="my-3 flex items-center gap-4" data-phase={PHASES[phase]}>
      <svg viewBox="0 0 28 64" className="h-16 w-7" aria-hidden>
        <rect x={1} y={1} width={26} height={62} rx={3} className="fill-transparent stroke-hairline" />
        <rect x={4} y={48 - height * 44} width={20} height={12} rx={2} className="fill-work" />
      </svg>
      <p>
        <b className="text-xl">
          {PHASES[phase]} {left > 0 && left}
        </b>
        <span className="block text-[15px] text-faint">
          rep {rep} at {tempo.lowering}-{tempo.bottom}-{tempo.lifting}-{tempo.top}
        </span>
      </p>
    </div>
  );
}
