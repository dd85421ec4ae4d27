import { sayUncertain, stageKind, testKind, LIMIT_KINDS, type Finding, type StageRecord } from '@gristmill/core';
import { Section } from '../../parts/Section.tsx';
import { useJoint, useOpen } from '../../state/open.ts';
import { useUnits } from '../../state/prefs.ts';
import { useFindings } from '../../workers/queries.ts';
import { setParams } from './StageFields.tsx';

/** Findings that a stage's parameters can be taken from: known on both sides, on a row that the kind has a place for. */
function taken(findings: readonly Finding[], stage: StageRecord) {
  const takes = stageKind(stage.kind)?.takes ?? {};
  return findings.flatMap((f) => {
    const take = f.row && takes[f.row];
    return f.row && take && f.found && f.bound === 'both' ? [{ ...f, row: f.row, found: f.found, take }] : [];
  });
}

/** What tests of the joint found that a stage can stand by, with the test's own uncertainty as its band. */
export function TakeFound({ stage }: { stage: StageRecord }) {
  const joint = useJoint();
  const units = useUnits();
  const readOnly = useOpen((s) => s.readOnly);
  const list = taken(useFindings().data ?? [], stage);
  if (!list.length) return null;
  return (
    <Section title="Found by a test" aside="of the unit alone">
      {list.map(({ testId, buildId, row, found, take }) => {
        const build = joint.builds.find((b) => b.id === buildId)?.name ?? '';
        const test = joint.tests.find((t) => t.id === testId);
        const name = LIMIT_KINDS[row].name;
        const text = sayUncertain(found.value, found.U, found.quantity, units);
        return (
          <div key={`${testId}/${row}`} className="flex items-baseline justify-between gap-2">
            <span>
              {name} <span className="num text-found">{text}</span>{' '}
              <span className="label">
                {build}, {test ? testKind(test.kind)?.name.toLowerCase() : ''}
              </span>
            </span>
            <button
              type="button"
              className="btn-quiet shrink-0"
              disabled={readOnly}
              aria-label={`Take ${name.toLowerCase()} ${text} of build ${build}`}
              onClick={() =>
                void setParams(
                  stage,
                  take({ value: found.value, low: found.value - found.U, high: found.value + found.U }),
                  `${name} as found in build ${build}`,
                )
              }
            >
              Take
            </button>
          </div>
        );
      })}
    </Section>
  );
}
