import type { ReactNode } from 'react';

/** A titled part of a side column: a heading on a rule, and what belongs under it. */
export function Section({ title, aside, children }: { title: string; aside?: ReactNode; children: ReactNode }) {
  return (
    <section aria-label={title} className="pb-3">
      <div className="rule-b flex items-baseline justify-between gap-2 pb-1">
        <h2>{title}</h2>
        {aside ? <span className="label text-right">{aside}</span> : null}
      </div>
      <div className="space-y-1 pt-1.5">{children}</div>
    </section>
  );
}
