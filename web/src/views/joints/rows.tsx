import {
  activeVariant,
  demandOf,
  LIMIT_KINDS,
  settleAll,
  standings,
  stopping,
  type Joint,
  type Problem,
} from '@gristmill/core';
import { format } from 'date-fns';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { exportRaw } from '../../app/joints.ts';
import { TextField } from '../../parts/ChoiceField.tsx';
import { QuantityText } from '../../parts/FigureText.tsx';
import { Glyph } from '../../parts/Glyph.tsx';
import { Menu } from '../../parts/Menu.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { overall } from '../../parts/words.ts';
import { slug } from '../../state/address.ts';
import { useShelf } from '../../state/shelf.ts';
import { StraightOf } from '../../state/straight.tsx';
import { useFindingsOf, useLineOf } from '../../workers/queries.ts';

/** A joint that cannot be shown, and what can be done about it; the others stand beside it. */
export function BadRow({
  id,
  name,
  problem,
  onRepair,
  onDelete,
}: {
  id: string;
  name: string;
  problem: Problem;
  onRepair: () => void;
  onDelete: () => void;
}) {
  return (
    <li className="py-2" data-bad={id}>
      <ProblemNote problem={{ ...problem, what: `“${name}” cannot be shown. ${problem.what}` }}>
        <p className="flex gap-3 pt-1">
          <button type="button" className="mend" onClick={() => void exportRaw(id, name)}>
            Export it as it lies in storage
          </button>
          <button type="button" className="mend" onClick={onRepair}>
            Repair it
          </button>
          <button type="button" className="mend" onClick={onDelete}>
            Delete it
          </button>
        </p>
      </ProblemNote>
    </li>
  );
}

/** A joint on the shelf: what it lifts, how it stands, and what can be done with it. */
export function JointRow({
  joint,
  opened,
  chosen,
  onChoose,
  onRename,
  onDuplicate,
  onExport,
  onDelete,
}: {
  joint: Joint;
  /** When it was last opened here, ms. */
  opened: number | undefined;
  /** Whether it is among those to do something with; undefined where there is but one. */
  chosen: boolean | undefined;
  onChoose: (on: boolean) => void;
  onRename: (name: string) => void;
  onDuplicate: () => void;
  onExport: () => void;
  onDelete: () => void;
}) {
  const variant = activeVariant(joint);
  const report = useLineOf(joint, variant);
  const findings = useFindingsOf(joint).data;
  const shelf = useShelf();
  const [renaming, setRenaming] = useState(false);
  const demand = useMemo(() => demandOf(joint.brief, shelf), [joint.brief, shelf]);
  // What was measured decides; until the tests have been gone through nothing is said.
  const verdicts = useMemo(
    () => report && findings && settleAll(joint.builds, report.verdicts, standings(findings, joint.tests), variant),
    [joint, variant, report, findings],
  );
  const word = report && verdicts && overall(verdicts, report.problem !== undefined, stopping(report).length);
  const missed = verdicts?.filter((v) => v.state === 'fails').map((v) => LIMIT_KINDS[v.id].name.toLowerCase()) ?? [];
  return (
    <li className="rule-b row-unseen group flex items-center gap-5 py-2.5 max-sm:gap-2" data-joint={joint.name}>
      {chosen === undefined ? null : (
        <input
          type="checkbox"
          className="h-4 w-4 shrink-0 accent-[var(--ink)]"
          aria-label={`Choose ${joint.name}`}
          checked={chosen}
          onChange={(e) => onChoose(e.target.checked)}
        />
      )}
      <Link
        to={`/joint/${slug(joint.id)}/brief`}
        tabIndex={-1}
        aria-hidden="true"
        className="flex h-[58px] w-[270px] shrink-0 items-center gap-3 overflow-hidden max-[1000px]:w-[180px] max-sm:hidden"
      >
        {variant.stages.length ? (
          variant.stages.slice(0, 3).map((s) => <Glyph key={s.id} stage={s} width={84} height={54} />)
        ) : (
          <span className="label">no stages yet</span>
        )}
      </Link>
      <div className="min-w-0 flex-1">
        {renaming ? (
          <TextField
            label="Name"
            hideLabel
            value={joint.name}
            className="w-full max-w-[26rem] text-[15px] font-semibold"
            autoFocus
            refuse={(v) => v === ''}
            onChange={onRename}
            onDone={() => setRenaming(false)}
          />
        ) : (
          <Link
            to={`/joint/${slug(joint.id)}/brief`}
            className="block truncate text-[15px] font-semibold hover:underline"
          >
            {joint.name}
          </Link>
        )}
        <p className="truncate text-[12.5px] text-muted">
          <StraightOf brief={joint.brief}>
            lifts <QuantityText value={demand.peak} quantity="torque" /> at{' '}
            <QuantityText value={demand.speed} quantity="speed" />
          </StraightOf>{' '}
          · {joint.variants.length} variant
          {joint.variants.length === 1 ? '' : 's'} · {joint.builds.length} build{joint.builds.length === 1 ? '' : 's'} ·{' '}
          {joint.tests.length} test{joint.tests.length === 1 ? '' : 's'}
        </p>
      </div>
      <div className="w-[190px] shrink-0 max-[1000px]:w-[130px]">
        <p className={word?.tone}>{word ? `${word.mark} ${word.text}` : '…'}</p>
        <p className="label truncate">{missed.join(', ')}</p>
      </div>
      <p className="num w-[160px] shrink-0 whitespace-nowrap text-right text-[12px] text-muted max-sm:hidden">
        <time dateTime={joint.changed}>{format(new Date(joint.changed), 'd MMM yyyy')}</time>
        {opened ? (
          <span className="block">
            opened <time dateTime={new Date(opened).toISOString()}>{format(new Date(opened), 'd MMM, HH:mm')}</time>
          </span>
        ) : null}
      </p>
      <Menu
        name="More"
        label={`More for ${joint.name}`}
        className="btn-quiet"
        entries={[
          { label: 'Rename', run: () => setRenaming(true) },
          { label: 'Duplicate', run: onDuplicate },
          { label: 'Export to a file', run: onExport },
          { label: 'Delete', run: onDelete },
        ]}
      />
    </li>
  );
}
