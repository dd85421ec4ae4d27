/** The foot of a printed bench sheet: who measured, and when. */
export function SheetFoot() {
  return (
    <p className="hidden pt-10 print:flex print:justify-between" aria-hidden>
      <span className="border-t border-ink pr-24 pt-1">measured by</span>
      <span className="border-t border-ink pr-24 pt-1">date</span>
      <span className="border-t border-ink pr-24 pt-1">checked by</span>
    </p>
  );
}
