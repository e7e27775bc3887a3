// biome-ignore-all lint/suspicious/noTemplateCurlyInString: fields of a completion are written like this
import { type CompletionContext, type CompletionResult, snippetCompletion } from "@codemirror/autocomplete";
import { HighlightStyle, StreamLanguage, syntaxHighlighting } from "@codemirror/language";
import { tags } from "@lezer/highlight";
import { PREP } from "./preparation";

const WORDS =
  /^(?:sets? of|rounds?|at|up|drop|leave|rpe|to (?:technical |muscular )?failure|tempo|each side(?: (?:right|weaker) first)?|apart|add|last|left|right|rest|within|every|between|for|of|max|hold|top|bw|two up one down|helped up|(?:stretched|shortened|alternating) halves)\b/i;
const TIME = /^\d+:\d\d|^\d+\s*(?:seconds?|secs?|s|minutes?|mins?|min|m)\b/i;
const NUMBER = /^\d+(?:[.,]\d+)?\s*(?:%|kg|lb|rm)?/i;

/** Colours for the notation: names, words, numbers, times, remarks. What it means is the server's to say. */
const notation = StreamLanguage.define<{ afterColon: boolean; prep: boolean }>({
  startState: () => ({ afterColon: false, prep: false }),
  token(stream, state) {
    if (stream.sol()) {
      state.afterColon = false;
      state.prep = Boolean(stream.match(PREP, false));
    }
    if (stream.eatSpace()) return null;
    if (stream.match(/^#.*/)) return "comment";
    if (stream.match(/^\[[^\]]*\]?/)) return "meta";
    if (!state.afterColon && !stream.match(/^(?:pair|circuit)(?=\s*[,:])/i, false)) {
      stream.match(/^[^:[#]+/);
      if (stream.peek() === ":") {
        stream.next();
        state.afterColon = true;
      }
      return "heading";
    }
    state.afterColon = true;
    if (stream.match(/^(?:pair|circuit)\b/i)) return "heading";
    if (stream.match(TIME)) return "atom";
    if (state.prep) {
      if (!stream.match(/^[^\s,;]+/)) stream.next();
      return null;
    }
    if (stream.match(WORDS)) return "keyword";
    if (stream.match(NUMBER)) return "number";
    stream.next();
    return "punctuation";
  },
});

const look = HighlightStyle.define([
  { tag: tags.heading, fontWeight: "700" },
  { tag: tags.keyword, color: "var(--slate-word)" },
  { tag: tags.number, fontWeight: "600" },
  { tag: tags.atom, color: "var(--slate-time)", fontWeight: "600" },
  { tag: [tags.comment, tags.meta, tags.punctuation], color: "var(--slate-faint)" },
]);

export const language = [notation, syntaxHighlighting(look)];

const PHRASES = [
  snippetCompletion("at ${1:60} kg", { label: "at … kg", detail: "a load" }),
  snippetCompletion("at ${1:75}%", { label: "at … %", detail: "of the estimated max" }),
  snippetCompletion("at ${1:12}RM", { label: "at …RM", detail: "a rep max" }),
  snippetCompletion("at bw+${1:10} kg", { label: "at bw+ … kg", detail: "body weight and more" }),
  snippetCompletion("at top -${1:10}%", { label: "at top -… %", detail: "from the top set" }),
  snippetCompletion("leave ${1:2}", { label: "leave …", detail: "reps in reserve" }),
  snippetCompletion("rest ${1:3:00}", { label: "rest …", detail: "after each set" }),
  snippetCompletion("within ${1:10}s", { label: "within … s", detail: "between the bouts of a set" }),
  snippetCompletion("every ${1:60}s", { label: "every … s", detail: "starts against the clock" }),
  snippetCompletion("tempo ${3-1-1-0}", { label: "tempo …", detail: "lowering-pause-lifting-pause" }),
  { label: "at last", detail: "as heavy as last time" },
  { label: "each side weaker first" },
  snippetCompletion("drop ${1:20}%", { label: "drop … %", detail: "from the bout before, at once" }),
  snippetCompletion("up ${1:2}%", { label: "up … %", detail: "climbs set by set" }),
  ...["to failure", "each side", "max", "stretched halves", "two up one down"].map((label) => ({ label })),
];

/** A line up to where a lift, or a part of its name, ends. */
const NAMING = /^\s*([^:[#]*)$/;

/** Whether a lift is being named at the end of what a line has up to the caret. */
export const isNamingLift = (before: string) => Boolean(NAMING.exec(before)?.[1]);

/** Offers lifts at the start of a line and words after its colon. */
export function completions(lifts: string[]) {
  const names = lifts.map((label) => ({ label, apply: `${label}: `, detail: "lift" }));
  const openings = [
    snippetCompletion("prep: ${1:drills} ${2:5 min}", { label: "prep: …", detail: "before the first lift" }),
    snippetCompletion("pair, ${1:3} rounds, rest ${2:1:30}:\n  ", {
      label: "pair, … rounds",
      detail: "two in turn",
    }),
    snippetCompletion("circuit, ${1:3} rounds, rest ${2:2:00}:\n  ", {
      label: "circuit, … rounds",
      detail: "more in turn",
    }),
  ];
  return (context: CompletionContext): CompletionResult | null => {
    const line = context.state.doc.lineAt(context.pos);
    const before = line.text.slice(0, context.pos - line.from);
    if (before.includes("#")) return null;
    const lift = NAMING.exec(before);
    if (lift) {
      if (!lift[1] && !context.explicit) return null;
      return {
        from: context.pos - (lift[1]?.length ?? 0),
        options: [...names, ...openings],
        validFor: /^[^:[]*$/,
      };
    }
    const word = context.matchBefore(/[a-z]+/i);
    if (!word && !context.explicit) return null;
    return { from: word?.from ?? context.pos, options: PHRASES, validFor: /^[a-z ]*$/i };
  };
}
