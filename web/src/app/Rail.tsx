import type { Finding, Joint, LineReport, SettledVerdict } from '@gristmill/core';
import { NavLink } from 'react-router';
import { slug } from '../state/address.ts';

/** How settled a view is: nothing there, under way, done. */
type Settled = 'none' | 'part' | 'done';
const MARK: Record<Settled, string> = { none: '○', part: '◐', done: '●' };
const WORD: Record<Settled, string> = { none: 'nothing yet', part: 'under way', done: 'settled' };

function settled(
  joint: Joint,
  report: LineReport | undefined,
  verdicts: readonly SettledVerdict[],
  findings: readonly Finding[],
): Record<string, Settled> {
  const variant = joint.variants.find((v) => v.id === joint.activeVariant);
  const stages = report?.stages ?? [];
  const stageFails = stages.some(
    (s) => s.problem || s.report?.checks.some((c) => c.state === 'fails' && c.severity === 'stop'),
  );
  // What was measured counts, and not what was expected of it.
  const musts = verdicts.filter((v) => v.need === 'must');
  const found = findings.filter((f) => f.found);
  return {
    brief: joint.brief.limits.length ? 'done' : 'part',
    line: !variant?.stages.length
      ? 'none'
      : musts.some((v) => v.state === 'fails') ||
          report?.problem ||
          report?.checks.some((c) => c.state === 'fails' && c.severity === 'stop')
        ? 'part'
        : 'done',
    stage: !variant?.stages.length ? 'none' : stageFails ? 'part' : 'done',
    make: joint.builds.some((b) => b.variantId === joint.activeVariant)
      ? 'done'
      : joint.builds.length
        ? 'part'
        : 'none',
    bench: found.length >= 2 ? 'done' : joint.tests.length ? 'part' : 'none',
    review: found.length ? 'part' : 'none',
  };
}

/** The views as words, in working order, each with a mark of how settled it is. */
export function Rail({
  joint,
  report,
  verdicts = [],
  findings,
}: {
  joint: Joint;
  report: LineReport | undefined;
  verdicts: readonly SettledVerdict[] | undefined;
  findings: readonly Finding[];
}) {
  const marks = settled(joint, report, verdicts, findings);
  const row = (name: string, path: string, mark?: Settled) => (
    <li key={path}>
      <NavLink
        to={`/joint/${slug(joint.id)}/${path}`}
        className={({ isActive }) =>
          'flex items-center justify-between border-l-3 px-2.5 py-2 compact:min-h-[44px] compact:border-l-0 compact:border-t-3 compact:px-2 compact:text-[13px] ' +
          `${isActive ? 'border-ink bg-panel font-semibold' : 'border-transparent text-muted hover:text-ink'}`
        }
      >
        {name}
        {mark ? (
          <span title={WORD[mark]} className="compact:sr-only">
            <span aria-hidden="true">{MARK[mark]}</span>
            <span className="sr-only">, {WORD[mark]}</span>
          </span>
        ) : null}
      </NavLink>
    </li>
  );
  return (
    <nav
      aria-label="Views"
      className="no-print border-r border-rule pt-3 compact:order-last compact:border-r-0 compact:border-t compact:bg-panel compact:pt-0"
    >
      <ul className="compact:flex compact:justify-between">
        {['Brief', 'Line', 'Stage', 'Make', 'Bench', 'Review'].map((n) =>
          row(n, n.toLowerCase(), marks[n.toLowerCase()]),
        )}
        <li className="h-6 compact:hidden" aria-hidden="true" />
        {row('Shop', 'shop')}
      </ul>
    </nav>
  );
}
