import { sayUncertain, type BenchTest } from '@gristmill/core';
import { format, parseISO } from 'date-fns';
import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { download, fileName } from '../../app/download.ts';
import { Boundary } from '../../parts/Boundary.tsx';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { slug } from '../../state/address.ts';
import { newId } from '../../state/identifier.ts';
import { useJoint, useOpen, useVariant } from '../../state/open.ts';
import { useUnits } from '../../state/prefs.ts';
import { useShelf } from '../../state/shelf.ts';
import { recordings } from '../../storage/shelf.ts';
import { askedMark } from '../../parts/words.ts';
import { useFindings, useLineOf } from '../../workers/queries.ts';
import { testCsv } from './csv.ts';
import { AnalysisNote } from './AnalysisNote.tsx';
import { LiveRig } from './LiveRig.tsx';
import { kindOf, newTest, TEST_NAMES } from '../../state/bench.ts';
import { NewTestDialog } from './NewTestDialog.tsx';
import { PlanPanel } from './PlanPanel.tsx';
import { ReadingsGrid } from './ReadingsGrid.tsx';
import { FirstPlot, ResultDetail } from './ResultDetail.tsx';
import { RigValues } from './RigValues.tsx';
import { Runs } from './Runs.tsx';
import { SheetFoot } from './SheetFoot.tsx';
import { StoreMap } from './StoreMap.tsx';
import { Teardown } from './Teardown.tsx';
import { Headline, Notes } from './Outcome.tsx';
import { RigSketch } from './RigSketch.tsx';
import { Later, useGrowing } from '../../parts/Later.tsx';
import { Said } from '../../parts/Said.tsx';

const PAGE = 60;

/** Guided tests of the builds: rig, readings, and what they say. */
export default function BenchView() {
  const joint = useJoint();
  const variant = useVariant();
  const edit = useOpen((s) => s.edit);
  const readOnly = useOpen((s) => s.readOnly);
  const units = useUnits();
  const shelf = useShelf();
  const [dialog, setDialog] = useState<'new' | 'plan' | undefined>();
  const findings = useFindings().data;
  const builds = useGrowing(joint.builds.length, 6);
  const findingOf = useMemo(() => new Map(findings?.map((f) => [f.testId, f])), [findings]);
  const [params, setParams] = useSearchParams();
  const [shown, setShown] = useState(PAGE);
  const [onBuild, setOnBuild] = useState<string | undefined>();
  const test = joint.tests.find((t) => t.id === params.get('test')) ?? joint.tests[joint.tests.length - 1];
  const build = joint.builds.find((b) => b.id === test?.buildId);
  const testVariant = joint.variants.find((v) => v.id === build?.variantId) ?? variant;
  const line = useLineOf(joint, testVariant);
  const finding = test && findingOf.get(test.id);
  const kind = test && kindOf(test.kind);
  const row = finding?.row;
  const verdict = line?.verdicts.find((v) => v.id === row);
  const expected = line?.figures.find((f) => f.id === row);

  const asked = verdict ? askedMark(verdict.asked, verdict.sense) : undefined;
  const own = joint.builds.filter((b) => b.variantId === variant.id);
  const ownLine = useLineOf(joint, variant);
  const live = params.get('rig') !== null;
  const begin = (kind: BenchTest['kind'], values: Readonly<Record<string, number | string>> = {}) => {
    setDialog(undefined);
    let buildId = own.find((b) => b.id === onBuild)?.id ?? own.at(-1)?.id;
    const made = newId();
    const t = newTest(kind, buildId ?? made, shelf, values);
    edit(`New test: ${TEST_NAMES[kind].toLowerCase()}`, (d) => {
      if (!buildId)
        d.builds.push({
          id: made,
          variantId: variant.id,
          name: `${variant.name}-1`,
          date: format(new Date(), 'yyyy-MM-dd'),
          process: '',
          notes: '',
        });
      d.tests.push(t);
    });
    buildId ??= made;
    setParams({ test: t.id });
  };

  /** The test as a file, its recording in it. */
  const exportTest = async () => {
    const whole = test && (await recordings.whole({ ...joint, tests: [test] })).tests[0];
    if (whole)
      download(
        `${fileName(joint.name, build?.name ?? '', whole.kind, whole.date)}.json`,
        `${JSON.stringify(whole, null, 2)}\n`,
        'application/json',
      );
  };
  const remove = () => {
    edit('Delete test', (d) => void (d.tests = d.tests.filter((t) => t.id !== test?.id)));
    setParams({});
  };

  return (
    <div className="grid h-full min-h-0 grid-cols-[176px_minmax(0,1fr)_240px] print:block">
      <div className="no-print flex min-h-0 flex-col border-r border-rule px-3.5 pt-3">
        <h2 className="border-b border-rule pb-1">Tests</h2>
        <div className="min-h-0 flex-1 overflow-y-auto" role="region" aria-label="Tests by build" tabIndex={0}>
          {joint.builds.slice(0, builds).map((b) => {
            const tests = joint.tests.filter((t) => t.buildId === b.id);
            return (
              <div key={b.id} className="pt-2">
                <p className="label">
                  Build {b.name}, {joint.variants.find((v) => v.id === b.variantId)?.name}
                </p>
                <ul>
                  {tests.slice(-shown).map((t) => {
                    const f = findingOf.get(t.id);
                    return (
                      <li key={t.id} className="row-unseen">
                        <button
                          type="button"
                          aria-current={t.id === test?.id || undefined}
                          className={
                            'block w-full border-l-3 px-2 py-1 text-left ' +
                            `${t.id === test?.id ? 'border-ink bg-panel' : 'border-transparent hover:border-rule'}`
                          }
                          onClick={() => setParams({ test: t.id })}
                        >
                          {TEST_NAMES[t.kind]}
                          <span className="num block text-[12px] text-found">
                            {f?.found ? (
                              sayUncertain(f.found.value, f.found.U, f.found.quantity, units)
                            ) : (
                              <span className="text-muted">no result yet</span>
                            )}
                          </span>
                        </button>
                      </li>
                    );
                  })}
                </ul>
                {tests.length > shown ? (
                  <button type="button" className="mend pl-2" onClick={() => setShown(shown + PAGE * 4)}>
                    Show earlier ({tests.length - shown})
                  </button>
                ) : null}
              </div>
            );
          })}
          {joint.tests.length === 0 ? (
            <p className="label pt-2">
              A test is one measurement of a build. The first one records a build of variant {variant.name} with it.
            </p>
          ) : null}
        </div>
        <div className="space-y-1.5 border-t border-rule py-2.5">
          {own.length > 0 ? (
            <ChoiceField
              label="On build"
              value={own.find((b) => b.id === onBuild)?.id ?? own.at(-1)!.id}
              options={own.map((b) => ({ value: b.id, label: b.name }))}
              onChange={(v) => setOnBuild(String(v))}
            />
          ) : null}
          <button type="button" className="btn block w-full" disabled={readOnly} onClick={() => setDialog('new')}>
            New test
          </button>
          <button type="button" className="btn block w-full" onClick={() => setDialog('plan')}>
            Test plan
          </button>
          <button
            type="button"
            className="btn block w-full"
            aria-pressed={live}
            onClick={() => setParams(live ? {} : { rig: '' })}
          >
            {live ? 'Back to the tests' : 'Live rig'}
          </button>
          <NewTestDialog
            open={dialog === 'new'}
            onClose={() => setDialog(undefined)}
            onChoose={(kind) => begin(kind)}
          />
          <PlanPanel
            open={dialog === 'plan'}
            line={ownLine}
            onClose={() => setDialog(undefined)}
            onBegin={(p) => begin(p.kind, p.values)}
          />
        </div>
      </div>
      {live ? (
        <LiveRig line={ownLine} onTaken={(id) => setParams({ test: id })} />
      ) : test && kind && build ? (
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
                {TEST_NAMES[test.kind]}{' '}
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
                    download(
                      `${fileName(joint.name, build.name, test.kind, test.date)}.csv`,
                      testCsv(test, finding, build.name),
                      'text/csv',
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
            <details className="no-print pb-1">
              <summary className="label cursor-pointer">How to do it</summary>
              <ol className="list-decimal pl-5 text-[13px]">
                {kind.steps.map((x) => (
                  <li key={x}>{x}</li>
                ))}
              </ol>
            </details>
            <AnalysisNote />
            <Headline test={test} finding={finding} expected={expected} asked={asked} />
            <Later>
              <FirstPlot key={test.id} finding={finding} />
              <div className="pt-2">
                <ReadingsGrid key={test.id} test={test} kind={kind} result={finding?.result} />
              </div>
            </Later>
            <Later>
              <ResultDetail finding={finding} />
              <Runs test={test} findings={findings ?? []} onChoose={(id) => setParams({ test: id })} />
              {kind.teardown ? <Teardown test={test} /> : null}
              {kind.mapsSensor ? <StoreMap test={test} /> : null}
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
      ) : (
        <div className="col-span-2 p-6">
          <h1 className="text-[16px]">Nothing measured yet.</h1>
          <p className="max-w-[40rem] py-2">
            Two tests to begin with. <b>Play at a lever</b>: hold the input, push a lever lightly both ways, read the
            difference at its end. <b>Torque ladder</b>: hang growing masses from a lever until the joint no longer
            carries them. The test plan says which tests answer the brief; the live rig streams from a sensor, or from a
            simulated specimen.
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
  );
}
