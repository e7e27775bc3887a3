import type { ReactNode } from "react";

/** Something to look at twice: an ochre bar, and words that stand without it. */
export function Notice({ children }: { children: ReactNode }) {
  return <div className="border-l-4 border-look pl-3 text-[15px] leading-snug">{children}</div>;
}

/** What went wrong while talking to the server, with a way to try again. */
export function Trouble({ error, retry }: { error: Error; retry?: () => void }) {
  return (
    <div role="alert" className="border-l-4 border-work pl-3">
      <p className="font-semibold">That did not work.</p>
      <p className="text-faint">{error.message}</p>
      {retry && (
        <button type="button" onClick={retry} className="mt-1 underline underline-offset-4">
          Try again
        </button>
      )}
    </div>
  );
}

export const Waiting = ({ what }: { what: string }) => (
  <p role="status" className="p-8 text-faint">
    Getting {what} …
  </p>
);
