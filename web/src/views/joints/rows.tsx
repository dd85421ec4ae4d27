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
import { DropdownMenu } from 'radix-ui';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { exportRaw } from '../../app/joints.ts';
import { TextField } from '../../parts/ChoiceField.tsx';
import { QuantityText } from '../../parts/FigureText.tsx';
import { Glyph } from '../../parts/Glyph.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { overall } from '../../parts/words.ts';
import { slug } from '../../state/address.ts';
import { useShelf } from '../../state/shelf.ts';
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
  onRename,
  onDuplicate,
  onExport,
  onDelete,
}: {
  joint: Joint;
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
    <li className="rule-b group flex items-center gap-5 py-2.5" data-joint={joint.name}>
      <Link
        to={`/joint/${slug(joint.id)}/brief`}
        tabIndex={-1}
        aria-hidden="true"
        className="flex h-[58px] w-[270px] shrink-0 items-center gap-3 overflow-hidden max-[1000px]:w-[180px]"
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
          lifts <QuantityText value={demand.peak} quantity="torque" /> at{' '}
          <QuantityText value={demand.speed} quantity="speed" /> · {joint.variants.length} variant
          {joint.variants.length === 1 ? '' : 's'} · {joint.builds.length} build{joint.builds.length === 1 ? '' : 's'} ·{' '}
          {joint.tests.length} test{joint.tests.length === 1 ? '' : 's'}
        </p>
      </div>
      <div className="w-[190px] shrink-0 max-[1000px]:w-[130px]">
        <p className={word?.tone}>{word ? `${word.mark} ${word.text}` : '…'}</p>
        <p className="label truncate">{missed.join(', ')}</p>
      </div>
      <time className="num w-[110px] shrink-0 text-right text-[12px] text-muted" dateTime={joint.changed}>
        {format(new Date(joint.changed), 'd MMM yyyy')}
      </time>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="btn-quiet" aria-label={`More for ${joint.name}`}>
          More
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content align="end" className="z-20 border border-strong bg-panel py-1">
            {(
              [
                ['Rename', () => setRenaming(true)],
                ['Duplicate', onDuplicate],
                ['Export to a file', onExport],
                ['Delete', onDelete],
              ] as const
            ).map(([label, run]) => (
              <DropdownMenu.Item
                key={label}
                onSelect={run}
                className="cursor-pointer px-4 py-1 data-[highlighted]:bg-ink data-[highlighted]:text-panel"
              >
                {label}
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </li>
  );
}
