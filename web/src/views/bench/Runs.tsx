import { sayUncertain, type BenchTest, type Finding } from '@gristmill/core';
import { useMemo, useState } from 'react';
import { useJoint } from '../../state/open.ts';
import { useUnits } from '../../state/prefs.ts';

/** Runs that are shown at first, the latest. */
const LATEST = 12;

/**
 * Other runs of the same test, held against this one: apart where the difference is more than both uncertainties
 * together.
 */
export function Runs({
  test,
  findings,
  onChoose,
}: {
  test: BenchTest;
  findings: readonly Finding[];
  onChoose: (id: string) => void;
}) {
  const joint = useJoint();
  const units = useUnits();
  const [all, setAll] = useState(false);
  const foundOf = useMemo(() => new Map(findings.map((f) => [f.testId, f.found])), [findings]);
  const others = joint.tests.filter((t) => t.kind === test.kind && t.id !== test.id);
  const own = foundOf.get(test.id);
  if (others.length === 0 || !own) return null;
  return (
    <section aria-label="Other runs" className="pt-2">
      <h2 className="rule-b pb-1">Other runs of this test</h2>
      <table className="w-full text-[12.5px]">
        <thead>
          <tr>
            <th>build</th>
            <th>date</th>
            <th className="text-right">found</th>
            <th className="pl-3">against this one</th>
          </tr>
        </thead>
        <tbody>
          {(all ? others : others.slice(-LATEST)).map((t) => {
            const f = foundOf.get(t.id);
            const apart = f ? Math.abs(f.value - own.value) > Math.hypot(f.U, own.U) : false;
            return (
              <tr key={t.id} className="rule-b">
                <td>
                  <button type="button" className="mend" onClick={() => onChoose(t.id)}>
                    {joint.builds.find((b) => b.id === t.buildId)?.name ?? 'build'}
                  </button>
                </td>
                <td className="num">{t.date}</td>
                <td className="num text-right text-found">{f ? sayUncertain(f.value, f.U, f.quantity, units) : '–'}</td>
                <td className="pl-3">
                  {f
                    ? apart
                      ? `${f.value > own.value ? 'more' : 'less'} by ${(100 * Math.abs(f.value / own.value - 1)).toPrecision(2)} %, beyond both uncertainties`
                      : 'the same within what is not known'
                    : 'no result'}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {!all && others.length > LATEST ? (
        <button type="button" className="mend" onClick={() => setAll(true)}>
          Show earlier runs ({others.length - LATEST})
        </button>
      ) : null}
    </section>
  );
}
