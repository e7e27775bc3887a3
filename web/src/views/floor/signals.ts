import { useCallback, useEffect, useRef, useState } from "react";

/** What announces the end of a rest, besides the screen. Kept on this device. */
export interface Signals {
  sound: boolean;
  voice: boolean;
}

const KEPT = "fortis.signals";
const LEAD_IN = 3;
const SHORT = 60;
/** Milliseconds in which the screen has answered a tap: the first sound takes a while to be made ready. */
const AFTER_PAINT = 150;

export function useSignals(): [Signals, (next: Signals) => void] {
  const [signals, setSignals] = useState<Signals>(() => {
    try {
      return { sound: true, voice: false, ...JSON.parse(localStorage.getItem(KEPT) ?? "{}") };
    } catch {
      return { sound: true, voice: false };
    }
  });
  const keep = useCallback((next: Signals) => {
    localStorage.setItem(KEPT, JSON.stringify(next));
    setSignals(next);
  }, []);
  return [signals, keep];
}

let context: AudioContext | undefined;

/** Sound may start with a touch or a key only; the first one on the Floor readies it. */
function audio(): AudioContext | undefined {
  if (typeof AudioContext === "undefined") return undefined;
  context ??= new AudioContext();
  if (context.state === "suspended") void context.resume();
  return context;
}

/** One tone at `after` seconds from now, timed by the sound card: a hidden, throttled page is on time too. */
function tone(after: number, hertz: number, seconds: number): OscillatorNode | undefined {
  const on = audio();
  if (!on) return undefined;
  const start = on.currentTime + Math.max(after, 0);
  const [source, volume] = [on.createOscillator(), on.createGain()];
  source.frequency.value = hertz;
  volume.gain.setValueAtTime(0.0001, start);
  volume.gain.exponentialRampToValueAtTime(0.35, start + 0.01);
  volume.gain.exponentialRampToValueAtTime(0.0001, start + seconds);
  source.connect(volume).connect(on.destination);
  source.start(start);
  source.stop(start + seconds + 0.05);
  return source;
}

/** A tick of the tempo guide. */
export const tick = (high: boolean) => tone(0, high ? 880 : 520, 0.08);

/**
 * Announces the end of a rest or of a hold: by sound, with a lead-in of three seconds on short ones, by vibration
 * and, where asked for, by voice. `endsAt` is in milliseconds, what runs until then takes `seconds`.
 */
export function useEndSignals({
  runs,
  endsAt,
  seconds,
  say,
  now,
  signals,
}: {
  runs: boolean;
  endsAt: number;
  seconds: number;
  say: string;
  now: () => number;
  signals: Signals;
}) {
  const words = useRef(say);
  words.current = say;
  useEffect(() => {
    if (!runs || endsAt <= now()) return;
    const left = (endsAt - now()) / 1000;
    const tones: ReturnType<typeof tone>[] = [];
    const sound = () => {
      const left = (endsAt - now()) / 1000;
      tones.push(tone(left, 880, 0.5));
      for (let before = 1; before <= LEAD_IN && seconds <= SHORT; before++)
        if (left > before) tones.push(tone(left - before, 440, 0.12));
    };
    const afterPaint = signals.sound ? setTimeout(sound, AFTER_PAINT) : undefined;
    const timer = setTimeout(
      () => {
        navigator.vibrate?.([200, 80, 200]);
        if (signals.voice) speechSynthesis?.speak(new SpeechSynthesisUtterance(words.current));
      },
      Math.max(left * 1000, 0),
    );
    return () => {
      clearTimeout(afterPaint);
      clearTimeout(timer);
      for (const each of tones) each?.stop();
    };
  }, [runs, endsAt, seconds, now, signals]);
}

/** Keep the screen awake while a session is played. False where this browser cannot. */
export function useWakeLock(): boolean {
  const [able, setAble] = useState(true);
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    const take = async () => {
      if (document.visibilityState !== "visible") return;
      try {
        lock = await navigator.wakeLock.request("screen");
        setAble(true);
      } catch {
        setAble(false);
      }
    };
    void take();
    document.addEventListener("visibilitychange", take);
    return () => {
      document.removeEventListener("visibilitychange", take);
      void lock?.release();
    };
  }, []);
  return able;
}
