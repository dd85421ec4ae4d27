import { KeyList } from '../../app/KeyList.tsx';
import { useTitle } from '../../app/title.ts';

/** The keys that every page has; those of a view are told there, by pressing `?`. */
export default function KeysPage() {
  useTitle('Keys');
  return (
    <main className="max-w-[46rem] pt-4">
      <h1 className="pb-2 text-[22px]">Keys</h1>
      <KeyList />
      <p className="label pt-3">
        In a view, its own keys are told by pressing ? there. In a drawing , and . turn the crank; in a field arrow keys
        nudge, with Shift tenfold, with Alt a tenth.
      </p>
    </main>
  );
}
