import type { Mend, Problem } from '@gristmill/core';
import { Said } from './Said.tsx';

/** What cannot be done, why, and what to do about it; with a button where one change mends it. */
export function ProblemNote({
  problem,
  fix,
  onFix,
  children,
}: {
  problem: Problem;
  fix?: Mend | undefined;
  onFix?: (mend: Mend) => void;
  children?: React.ReactNode;
}) {
  return (
    <div role="alert" className="border-l-3 border-fail bg-panel px-3 py-2">
      <p className="font-semibold text-fail">
        ✕ <Said>{problem.what}</Said>
      </p>
      <p>
        <Said>{`${problem.why} ${problem.mend}`}</Said>
      </p>
      {fix && onFix ? (
        <button type="button" className="mend" onClick={() => onFix(fix)}>
          <Said>{fix.label}</Said>
        </button>
      ) : null}
      {children}
    </div>
  );
}
