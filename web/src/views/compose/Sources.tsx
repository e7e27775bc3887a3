import { memo, useState } from "react";
import { v4 as newId } from "uuid";
import { useKeepTemplate, useRecent, useTemplates } from "@/data/queries";
import { Button } from "@/parts/Button";
import { saveFile } from "@/parts/file";
import { Menu, MenuHeading, MenuItem } from "@/parts/Menu";
import { useDrawn } from "@/parts/useDrawn";
import { dayWords, isoDate } from "../dates";
import { EXAMPLE } from "./example";

/** Where a session can start from: templates, what was done lately, an example. */
export const StartFrom = memo(function StartFrom({
  onStart,
}: {
  /** Told the text, and the slot that a session from it fills. */
  onStart: (written: string, slot: string | null) => void;
}) {
  const { data: templates = [] } = useTemplates(useDrawn());
  const { data: recent = [] } = useRecent(useDrawn());
  return (
    <Menu trigger={<Button look="quiet">Start from …</Button>}>
      {templates.length > 0 && <MenuHeading>Templates</MenuHeading>}
      {templates.map((template) => (
        <MenuItem key={template.id} onSelect={() => onStart(template.written, template.id)}>
          {template.title}
        </MenuItem>
      ))}
      {recent.length > 0 && <MenuHeading>Done lately</MenuHeading>}
      {recent.map((session) => (
        <MenuItem key={session.id} onSelect={() => onStart(session.written, session.slot)}>
          {session.title}
          <span className="ml-3 opacity-70">
            {session.started_at && dayWords(session.started_at, isoDate(new Date()))}
          </span>
        </MenuItem>
      ))}
      <MenuHeading>To look at</MenuHeading>
      <MenuItem onSelect={() => onStart(EXAMPLE, null)}>The example</MenuItem>
    </Menu>
  );
});

/** Ways to keep or pass on a text: a template, the clipboard, a plain file. */
export const KeepAndShare = memo(function KeepAndShare({
  text,
  title,
  slot,
  empty,
  whole,
}: {
  text: () => string;
  title: string;
  slot: string | null;
  empty: boolean;
  /** Whether all of it can be read. */
  whole: boolean;
}) {
  const keep = useKeepTemplate();
  const { data: templates = [] } = useTemplates(useDrawn());
  const [message, setMessage] = useState("");
  const own = templates.find((template) => template.title === title);
  const asTemplate = () =>
    keep.mutate(
      { id: own?.id ?? (slot && !templates.some(({ id }) => id === slot) ? slot : newId()), written: text() },
      {
        onSuccess: () => setMessage(`${title} is saved as a template.`),
        onError: (error) => setMessage(error.message),
      },
    );
  const copy = () =>
    navigator.clipboard.writeText(text()).then(
      () => setMessage("Copied as text."),
      () => setMessage("This browser does not let pages copy; take the file instead."),
    );
  const download = () => {
    saveFile(`${title.replace(/[^\p{L}\p{N} -]/gu, "").trim() || "session"}.txt`, text());
    setMessage("Saved as a text file.");
  };
  return (
    <>
      <Menu
        trigger={
          <Button look="quiet" disabled={empty}>
            Save or copy
          </Button>
        }
      >
        {whole && (
          <MenuItem onSelect={asTemplate}>
            {own ? "Update the template of this name" : "Save as a template"}
          </MenuItem>
        )}
        {own && (
          <MenuItem
            onSelect={() =>
              keep.mutate(
                { id: own.id, written: null },
                { onSuccess: () => setMessage("The template is gone; its text is still here.") },
              )
            }
          >
            Delete the template
          </MenuItem>
        )}
        <MenuItem onSelect={copy}>Copy as text</MenuItem>
        <MenuItem onSelect={download}>Save as a text file</MenuItem>
      </Menu>
      <span role="status" className="self-center text-[15px] text-faint">
        {message}
      </span>
    </>
  );
});
