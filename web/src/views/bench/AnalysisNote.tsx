import { TEST_NAMES } from '../../state/bench.ts';
import { useJoint } from '../../state/open.ts';
import { useAnalysing, useFindings } from '../../workers/queries.ts';

/** How far the analysis of a long recording is, with a way to stop it and to begin again. */
export function AnalysisNote() {
  const joint = useJoint();
  const at = useAnalysing((s) => s.at);
  const { stopped, stop, again } = useFindings();
  if (stopped)
    return (
      <p role="status" className="border-l-3 border-near bg-serious px-3 py-1.5">
        The analysis was stopped: figures here are of before, or missing.{' '}
        <button type="button" className="mend" onClick={again}>
          Analyse again
        </button>
      </p>
    );
  const kind = joint.tests.find((t) => t.id === at?.testId)?.kind;
  if (!at || !kind) return null;
  return (
    <p role="status" className="flex items-center gap-2 py-1">
      {TEST_NAMES[kind]}: {at.samples.toLocaleString('en').replaceAll(',', ' ')} samples{' '}
      <progress max={1} value={at.share} aria-label="Analysis" className="h-2 w-40" /> {Math.round(at.share * 100)} %{' '}
      <button type="button" className="mend" onClick={stop}>
        Stop the analysis
      </button>
    </p>
  );
}
