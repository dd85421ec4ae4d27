import {
  builtOf,
  testCsv,
  unpackRecording,
  type BenchTest,
  type Build,
  type Finding,
  type Recording,
  type TestKind,
} from '@gristmill/core';
import { format, parseISO } from 'date-fns';
import { memo } from 'react';
import { download, fileName } from '../../app/download.ts';
import { Boundary } from '../../parts/Boundary.tsx';
import { Later } from '../../parts/Later.tsx';
import { BuiltOtherwise } from '../../parts/BuiltOtherwise.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { Said } from '../../parts/Said.tsx';
import { askedMark } from '../../parts/words.ts';
import { useJoint, useOpen, useVariant } from '../../state/open.ts';
import { recordings } from '../../storage/shelf.ts';
import { useLineOf } from '../../workers/queries.ts';
import { AnalysisNote } from './AnalysisNote.tsx';
import { Headline, Notes } from './Outcome.tsx';
import { ReadingsGrid } from './ReadingsGrid.tsx';
import { FirstPlot, ResultDetail } from './ResultDetail.tsx';
import { RigSketch } from './RigSketch.tsx';
import { RigValues } from './RigValues.tsx';
import { Runs } from './Runs.tsx';
import { SheetFoot } from './SheetFoot.tsx';
import { StoreMap } from './StoreMap.tsx';
import { TeachProcess } from './TeachProcess.tsx';
import { Teardown } from './Teardown.tsx';

/** The samples of a test, where it has some and they can be read. */
async function recordingOf(test: BenchTest): Promise<Recording | undefined> {
  if (!test.recording) return undefined;
  const data = (await recordings.data(test.recording)) ?? undefined;
  const unpacked = unpackRecording({ ...test.recording, ...(data !== undefined && { data }) });
  return unpacked.ok ? unpacked.value : undefined;
}

/** One test: how it is done, its readings and what they say, its rig beside them. */
export const TestSheet = memo(function TestSheet({
  test,
  kind,
  build,
  finding,
  findings,
  onChoose,
  onGone,
}: {
  test: BenchTest;
  kind: TestKind;
  build: Build;
  finding: Finding | undefined;
  findings: readonly Finding[];
  onChoose: (id: string) => void;
  /** Called once the test has been deleted. */
  onGone: () => void;
}) {
  const joint = useJoint();
  const open = useVariant();
  const edit = useOpen((s) => s.edit);
  const readOnly = useOpen((s) => s.readOnly);
  const variant = joint.variants.find((v) => v.id === build.variantId) ?? open;
  const line = useLineOf(joint, variant);
  const verdict = line?.verdicts.find((v) => v.id === finding?.row);
  const expected = line?.figures.find((f) => f.id === finding?.row);
  const asked = verdict ? askedMark(verdict.asked, verdict.sense) : undefined;

  /** The test as a file, its recording in it. */
  const exportTest = async () => {
    const whole = (await recordings.whole({ ...joint, tests: [test] })).tests[0];
    if (whole)
      download(
        `${fileName(joint.name, build.name, whole.kind, whole.date)}.json`,
        `${JSON.stringify(whole, null, 2)}\n`,
        'application/json',
      );
  };
  const remove = () => {
    edit('Delete test', (d) => void (d.tests = d.tests.filter((t) => t.id !== test.id)));
    onGone();
  };

  return (
    <Boundary
      of={test}
      instead={(why) => (
        <div className="col-span-2 p-6">
          <ProblemNote
            problem={{
              what: 'This test cannot be shown.',
              why: `The fault is Gristmill’s: ${why}.`,
              mend: 'Its readings are kept. Export it, undo its last change, or delete it; the other tests stand.',
            }}
          >
            <p className="flex gap-3 pt-1">
              <button type="button" className="mend" onClick={() => void exportTest()}>
                Save as JSON
              </button>
              <button type="button" className="mend" disabled={readOnly} onClick={remove}>
                Delete test
              </button>
            </p>
          </ProblemNote>
        </div>
      )}
    >
      <div className="min-h-0 min-w-0 overflow-y-auto px-5 pb-4 pt-3 print:overflow-visible">
        <div className="flex flex-wrap items-baseline gap-3">
          <h1 className="text-[15px]">
            {kind.name}{' '}
            <span className="label font-normal">
              build {build.name}, {format(parseISO(test.date), 'd MMM yyyy')}
            </span>
          </h1>
          <span className="no-print ml-auto flex gap-1">
            <button type="button" className="btn-quiet" onClick={() => window.print()}>
              Print sheet
            </button>
            <button type="button" className="btn-quiet" onClick={() => void exportTest()}>
              Save as JSON
            </button>
            <button
              type="button"
              className="btn-quiet"
              onClick={() =>
                void recordingOf(test).then((recording) =>
                  download(
                    `${fileName(joint.name, build.name, test.kind, test.date)}.csv`,
                    testCsv(test, finding, build.name, recording),
                    'text/csv',
                  ),
                )
              }
            >
              Save as CSV
            </button>
            <button type="button" className="btn-quiet" disabled={readOnly} onClick={remove}>
              Delete test
            </button>
          </span>
        </div>
        <p className="caution my-2">
          <Said>{kind.caution}</Said>
        </p>
        <BuiltOtherwise build={build} />
        <details className="no-print pb-1">
          <summary className="label cursor-pointer">How to do it</summary>
          <ol className="list-decimal pl-5 text-[13px]">
            {kind.steps.map((x) => (
              <li key={x}>{x}</li>
            ))}
          </ol>
        </details>
        <AnalysisNote />
        <Headline test={test} finding={finding} expected={expected} asked={asked} of={builtOf(build, variant)} />
        <Later>
          <FirstPlot key={test.id} finding={finding} />
          <div className="pt-2">
            <ReadingsGrid key={test.id} test={test} kind={kind} result={finding?.result} />
          </div>
        </Later>
        <Later>
          <ResultDetail finding={finding} />
          <Runs test={test} findings={findings ?? []} onChoose={onChoose} />
          {kind.teardown ? <Teardown test={test} /> : null}
          {kind.mapsSensor ? <StoreMap test={test} /> : null}
          {kind.teachesProcess ? <TeachProcess test={test} build={build} /> : null}
          <Notes test={test} />
          <SheetFoot />
        </Later>
      </div>
      <div className="min-h-0 overflow-y-auto border-l border-rule bg-panel px-3.5 pt-3 print:max-w-[320px] print:overflow-visible print:border-0">
        <Later>
          <RigSketch kind={kind} test={test} />
          <RigValues key={test.id} test={test} kind={kind} />
        </Later>
      </div>
    </Boundary>
  );
});
