/** Saves a session as a card to print. */
export function CardLink({ session }: { session: string }) {
  return (
    <a
      href={`/api/export/sessions/${session}/card.pdf`}
      download
      className="inline-flex min-h-11 items-center underline underline-offset-4"
    >
      Card to print (PDF)
    </a>
  );
}
