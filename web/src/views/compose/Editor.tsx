import {
  acceptCompletion,
  autocompletion,
  closeCompletion,
  completionKeymap,
  startCompletion,
} from "@codemirror/autocomplete";
import { defaultKeymap, history, historyKeymap, indentWithTab } from "@codemirror/commands";
import { type Diagnostic, lintKeymap, setDiagnostics } from "@codemirror/lint";
import { EditorState, Prec } from "@codemirror/state";
import {
  drawSelection,
  EditorView,
  highlightActiveLine,
  highlightActiveLineGutter,
  keymap,
  lineNumbers,
  placeholder,
} from "@codemirror/view";
import { useEffect, useEffectEvent, useRef } from "react";
import { styleNonce } from "@/app/nonce";
import type { Schemas } from "@/data/client";
import { completions, isNamingLift, language } from "./language";

/** What a view can do with the written form besides typing in it. Every change can be undone. */
export interface EditorHandle {
  /** Put `written` in place of line `line`, counted from 1; the focus moves into the text unless told to stay. */
  replaceLine: (line: number, written: string, focus?: boolean) => void;
  /** Put `written` in place of everything. */
  replaceAll: (written: string) => void;
  /** Add lines at the end. */
  append: (written: string) => void;
  /** Put the caret on a line. */
  goTo: (line: number) => void;
}

const LOOK = EditorView.theme({
  "&": { color: "var(--slate-text)", fontSize: "15px" },
  "&.cm-focused": { outline: "none" },
  ".cm-scroller": { fontFamily: "inherit", lineHeight: "28px" },
  ".cm-content": { caretColor: "var(--slate-text)", minHeight: "112px", padding: "0" },
  ".cm-cursor": { borderLeftColor: "var(--slate-text)", borderLeftWidth: "2px" },
  ".cm-gutters": { background: "transparent", color: "var(--slate-faint)", border: "none" },
  ".cm-activeLineGutter": { background: "transparent", color: "var(--slate-text)" },
  ".cm-activeLine": { background: "var(--slate-line)" },
  "&.cm-focused .cm-selectionBackground, .cm-selectionBackground": {
    background: "var(--slate-selected) !important",
  },
  ".cm-placeholder": { color: "var(--slate-faint)" },
  ".cm-lintRange-error": {
    backgroundImage: "none",
    textDecoration: "underline wavy var(--slate-wrong)",
    textUnderlineOffset: "4px",
  },
  ".cm-tooltip": { background: "var(--panel)", color: "var(--ink)", border: "1px solid var(--hairline)" },
  ".cm-tooltip.cm-tooltip-autocomplete > ul": { fontFamily: "inherit", lineHeight: "1.7" },
  ".cm-tooltip.cm-tooltip-autocomplete > ul > li[aria-selected]": {
    background: "var(--ink)",
    color: "var(--paper)",
  },
  ".cm-completionDetail": { fontStyle: "normal", opacity: "0.8" },
});

/** The written form: an editor that colours, completes, and underlines what is wrong. */
export default function Editor({
  onEditor,
  first,
  lifts,
  problems,
  onChange,
  onLine,
  onMove,
  onSave,
}: {
  /** Told what can be done with it once it is there, and nothing when it goes. */
  onEditor: (editor: EditorHandle | null) => void;
  first: string;
  lifts: string[];
  problems: Schemas["Problem"][];
  onChange: (written: string) => void;
  onLine: (line: number) => void;
  onMove: (where: "earlier" | "later") => void;
  onSave: () => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(null);
  const written = useEffectEvent(onChange);
  const moved = useEffectEvent(onLine);
  const save = useEffectEvent(onSave);
  const move = useEffectEvent(onMove);
  const start = useEffectEvent(() => first);
  const told = useEffectEvent(onEditor);
  const complete = useEffectEvent((context: Parameters<ReturnType<typeof completions>>[0]) =>
    completions(lifts)(context),
  );

  useEffect(() => {
    if (!box.current) return;
    const editor = new EditorView({
      parent: box.current,
      state: EditorState.create({
        doc: start(),
        extensions: [
          lineNumbers(),
          history(),
          drawSelection(),
          EditorView.lineWrapping,
          highlightActiveLine(),
          highlightActiveLineGutter(),
          language,
          LOOK,
          EditorView.cspNonce.of(styleNonce),
          EditorState.tabSize.of(2),
          EditorView.contentAttributes.of({ "aria-label": "Written form", spellcheck: "false" }),
          placeholder("Back squat: 3 x 5 at 100 kg leave 2 rest 3:00"),
          autocompletion({ override: [(context) => complete(context)] }),
          Prec.highest(
            keymap.of([
              { key: "Mod-Enter", run: () => taken(save) },
              { key: "Alt-ArrowUp", run: () => taken(() => move("earlier")) },
              { key: "Alt-ArrowDown", run: () => taken(() => move("later")) },
            ]),
          ),
          keymap.of([
            { key: "Tab", run: acceptCompletion },
            ...completionKeymap,
            ...defaultKeymap,
            ...historyKeymap,
            ...lintKeymap,
            indentWithTab,
          ]),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) written(update.state.doc.toString());
            if (update.selectionSet || update.docChanged) {
              moved(update.state.doc.lineAt(update.state.selection.main.head).number);
            }
          }),
        ],
      }),
    });
    view.current = editor;
    told(handle(editor));
    return () => {
      told(null);
      editor.destroy();
    };
  }, []);

  /** Lifts that come while one is being named are offered at once. */
  useEffect(() => {
    const editor = view.current;
    if (!editor?.hasFocus || !lifts.length) return;
    const { from, text } = editor.state.doc.lineAt(editor.state.selection.main.head);
    if (isNamingLift(text.slice(0, editor.state.selection.main.head - from))) startCompletion(editor);
  }, [lifts]);

  useEffect(() => {
    const editor = view.current;
    if (editor)
      editor.dispatch(
        setDiagnostics(
          editor.state,
          problems.flatMap((each) => diagnostic(editor, each)),
        ),
      );
  }, [problems]);

  return <div ref={box} />;
}

/** Do it, and tell the editor that the key has been taken care of. */
function taken(act: () => void): true {
  act();
  return true;
}

function diagnostic(editor: EditorView, problem: Schemas["Problem"]): Diagnostic[] {
  if (problem.line > editor.state.doc.lines) return [];
  const line = editor.state.doc.line(problem.line);
  const from = Math.min(line.from + problem.column - 1, line.to);
  const word = /^[^\s,;:()]+/.exec(line.text.slice(from - line.from))?.[0].length ?? 0;
  const action = (nearest: string) => ({
    name: `Write ${nearest}`,
    apply: (target: EditorView, start: number, end: number) =>
      target.dispatch({ changes: { from: start, to: end, insert: nearest } }),
  });
  return [
    {
      from: word ? from : Math.max(line.from, from - 1),
      to: word ? from + word : Math.max(from, line.from),
      severity: "error",
      message: problem.message,
      actions: problem.nearest ? [action(problem.nearest)] : [],
    },
  ];
}

/** What can be done with an editor. */
function handle(view: EditorView): EditorHandle {
  const change = (changes: { from: number; to?: number; insert: string }, focus = true) => {
    // What was offered while typing is about a line that is no longer there, and would lie over the new one.
    closeCompletion(view);
    view.dispatch({ changes, scrollIntoView: focus, userEvent: "input" });
    if (focus) view.focus();
  };
  return {
    replaceLine: (number, written, focus = true) => {
      const { from, to } = view.state.doc.line(number);
      change({ from, to, insert: written }, focus);
    },
    replaceAll: (written) => change({ from: 0, to: view.state.doc.length, insert: written }),
    append: (written) => {
      const { doc } = view.state;
      const gap = doc.length && doc.line(doc.lines).length ? "\n" : "";
      change({ from: doc.length, insert: gap + written });
    },
    goTo: (number) => {
      if (number > view.state.doc.lines) return;
      view.dispatch({ selection: { anchor: view.state.doc.line(number).to }, scrollIntoView: true });
      view.focus();
    },
  };
}
