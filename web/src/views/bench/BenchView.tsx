import { useCallback, useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import { slug } from '../../state/address.ts';
import { kindOf } from '../../state/bench.ts';
import { useJoint, useVariant } from '../../state/open.ts';
import { useFindings, useLineOf } from '../../workers/queries.ts';
import { LiveRig } from './LiveRig.tsx';
import { NewTests } from './NewTests.tsx';
import { TestList } from './TestList.tsx';
import { TestSheet } from './TestSheet.tsx';
import { Panes } from '../../parts/Panes.tsx';

/** Guided tests of the builds: rig, readings, and what they say. */
export default function BenchView() {
  const joint = useJoint();
  const variant = useVariant();
  const findings = useFindings().data;
  const findingOf = useMemo(() => new Map(findings?.map((f) => [f.testId, f])), [findings]);
  const [params, setParams] = useSearchParams();
  const line = useLineOf(joint, variant);
  const test = joint.tests.find((t) => t.id === params.get('test')) ?? joint.tests[joint.tests.length - 1];
  const build = joint.builds.find((b) => b.id === test?.buildId);
  const kind = test && kindOf(test.kind);
  const live = params.get('rig') !== null;
  const choose = useCallback((id: string) => setParams({ test: id }), [setParams]);
  const leave = useCallback(() => setParams({}), [setParams]);
  const toRig = useCallback((on: boolean) => setParams(on ? { rig: '' } : {}), [setParams]);

  return (
    <Panes
      id="bench"
      name="the list of tests"
      width={176}
      first
      plain="one-column grid h-full min-h-0 grid-cols-1 print:block"
      pane={
        <div className="no-print flex min-h-0 flex-col px-3.5 pt-3 max-[899px]:order-last compact:order-last">
          <h2 className="border-b border-rule pb-1">Tests</h2>
          <TestList
            builds={joint.builds}
            variants={joint.variants}
            tests={joint.tests}
            findingOf={findingOf}
            current={test?.id}
            fresh={variant.name}
            onChoose={choose}
          />
          <NewTests live={live} onLive={toRig} onBegun={choose} />
        </div>
      }
    >
      <div className="one-column grid h-full min-h-0 grid-cols-[minmax(0,1fr)_240px] print:block">
        {live ? (
          <LiveRig line={line} onTaken={choose} />
        ) : test && kind && build ? (
          <TestSheet
            test={test}
            kind={kind}
            build={build}
            finding={findingOf.get(test.id)}
            findings={findings ?? NONE}
            onChoose={choose}
            onGone={leave}
          />
        ) : (
          <div className="col-span-2 p-6">
            <h1 className="text-[16px]">Nothing measured yet.</h1>
            <p className="max-w-[40rem] py-2">
              Two tests to begin with. <b>Play at a lever</b>: hold the input, push a lever lightly both ways, read the
              difference at its end. <b>Torque ladder</b>: hang growing masses from a lever until the joint no longer
              carries them. The test plan says which tests answer the brief; the live rig streams from a sensor, or from
              a simulated specimen.
            </p>
            <p>
              Builds are recorded in{' '}
              <Link className="mend" to={`/joint/${slug(joint.id)}/make`}>
                Make
              </Link>
              ; a first test makes one for you.
            </p>
          </div>
        )}
      </div>
    </Panes>
  );
}

const NONE = [] as const;
