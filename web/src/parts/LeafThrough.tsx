import { ArrowLeft, ArrowRight } from "lucide-react";

interface Leaf {
  words: string;
  onTurn: () => void;
  disabled?: boolean;
}

const LOOK = "flex min-h-11 items-center gap-2 underline underline-offset-4 disabled:invisible";

/** Goes back and on through what is not shown all at once. */
export function LeafThrough({ back, on }: { back: Leaf; on: Leaf }) {
  return (
    <p className="flex justify-between">
      <button type="button" onClick={back.onTurn} disabled={back.disabled} className={LOOK}>
        <ArrowLeft size={16} aria-hidden />
        {back.words}
      </button>
      <button type="button" onClick={on.onTurn} disabled={on.disabled} className={LOOK}>
        {on.words}
        <ArrowRight size={16} aria-hidden />
      </button>
    </p>
  );
}
