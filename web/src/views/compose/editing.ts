import { useCallback, useRef } from "react";
import type { EditorHandle } from "./Editor";

type Change = (editor: EditorHandle) => void;

/** Changes of the written form by what stands around it; those made before the editor is there wait for it. */
export function useEditing() {
  const editor = useRef<EditorHandle>(null);
  const waiting = useRef<Change[]>([]);
  const edit = (change: Change) => {
    if (editor.current) change(editor.current);
    else waiting.current.push(change);
  };
  const onEditor = useCallback((there: EditorHandle | null) => {
    editor.current = there;
    if (there) for (const change of waiting.current.splice(0)) change(there);
  }, []);
  return { edit, onEditor };
}
