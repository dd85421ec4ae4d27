import { sayUncertain, type BenchTest, type Joint, type Finding } from '@gristmill/core';
import { memo, useMemo, useState } from 'react';
import { useGrowing } from '../../parts/Later.tsx';
import { TEST_NAMES } from '../../state/bench.ts';
import { useUnits } from '../../state/prefs.ts';

/** Rows of a build that are shown at first. */
const PAGE = 60;

const TestRow = memo(function TestRow({
  test,
  finding,
  current,
  onChoose,
}: {
  test: BenchTest;
  finding: Finding | undefined;
  current: boolean;
  onChoose: (id: string) => void;
}) {
  const units = useUnits();
  return (
    <li className="row-unseen">
      <button
        type="button"
        aria-current={current || undefined}
        className={
          'block w-full border-l-3 px-2 py-1 text-left ' +
          `${current ? 'border-ink bg-panel' : 'border-transparent hover:border-rule'}`
        }
        onClick={() => onChoose(test.id)}
      >
        {TEST_NAMES[test.kind]}
        <span className="num block text-[12px] text-found">
          {finding?.found ? (
            sayUncertain(finding.found.value, finding.found.U, finding.found.quantity, units)
          ) : (
            <span className="text-muted">no result yet</span>
          )}
        </span>
      </button>
    </li>
  );
});

/** Every test by its build, with what it found. */
export const TestList = memo(function TestList({
  builds,
  variants,
  tests,
  findingOf,
  current,
  fresh,
  onChoose,
}: Pick<Joint, 'builds' | 'variants' | 'tests'> & {
  findingOf: ReadonlyMap<string, Finding>;
  current: string | undefined;
  /** The variant of which a first test makes a build. */
  fresh: string;
  onChoose: (id: string) => void;
}) {
  const [shown, setShown] = useState(PAGE);
  const seen = useGrowing(builds.length, 6);
  const byBuild = useMemo(() => {
    const lists = new Map<string, BenchTest[]>();
    for (const t of tests) {
      const own = lists.get(t.buildId);
      if (own) own.push(t);
      else lists.set(t.buildId, [t]);
    }
    return lists;
  }, [tests]);
  return (
    <div className="min-h-0 flex-1 overflow-y-auto" role="region" aria-label="Tests by build" tabIndex={0}>
      {builds.slice(0, seen).map((b) => {
        const own = byBuild.get(b.id) ?? [];
        return (
          <div key={b.id} className="pt-2">
            <p className="label">
              Build {b.name}, {variants.find((v) => v.id === b.variantId)?.name}
            </p>
            <ul>
              {own.slice(-shown).map((t) => (
                <TestRow
                  key={t.id}
                  test={t}
                  finding={findingOf.get(t.id)}
                  current={t.id === current}
                  onChoose={onChoose}
                />
              ))}
            </ul>
            {own.length > shown ? (
              <button type="button" className="mend pl-2" onClick={() => setShown(shown + PAGE * 4)}>
                Show earlier ({own.length - shown})
              </button>
            ) : null}
          </div>
        );
      })}
      {tests.length === 0 ? (
        <p className="label pt-2">
          A test is one measurement of a build. The first one records a build of variant {fresh} with it.
        </p>
      ) : null}
    </div>
  );
});
