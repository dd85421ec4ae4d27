import { format } from 'date-fns';
import type { Binned } from '../../storage/joints.ts';

/** Joints in the bin, as long as they can be brought back. */
export function Deleted({
  bin,
  onBack,
  onForGood,
}: {
  bin: readonly Binned[];
  onBack: (b: Binned) => void;
  onForGood: (b: Binned) => void;
}) {
  return (
    <section aria-label="Deleted" className="pt-4" data-bin="">
      <h2 className="label">Deleted</h2>
      <ul>
        {bin.map((b) => (
          <li key={b.pointer.id} className="flex items-baseline gap-4 py-1 text-muted">
            <span className="min-w-0 truncate">{b.pointer.name}</span>
            <span className="label">
              can be brought back until {format(new Date(b.until), 'HH:mm')}; then its saves and recordings are freed
            </span>
            <button type="button" className="mend" onClick={() => onBack(b)}>
              Bring back<span className="sr-only"> {b.pointer.name}</span>
            </button>
            <button type="button" className="mend" onClick={() => onForGood(b)}>
              Delete for good<span className="sr-only"> {b.pointer.name}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
