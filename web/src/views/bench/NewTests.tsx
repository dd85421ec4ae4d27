import type { BenchTest } from '@gristmill/core';
import { memo, useState } from 'react';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { newBuild, newTest, TEST_NAMES } from '../../state/bench.ts';
import { useJoint, useOpen, useVariant } from '../../state/open.ts';
import { useShelf } from '../../state/shelf.ts';
import { useLineOf } from '../../workers/queries.ts';
import { NewTestDialog } from './NewTestDialog.tsx';
import { PlanPanel } from './PlanPanel.tsx';

/** Where tests begin: on which build, of which kind, by the plan, or from the live rig. */
export const NewTests = memo(function NewTests({
  live,
  onLive,
  onBegun,
}: {
  live: boolean;
  onLive: (live: boolean) => void;
  onBegun: (id: string) => void;
}) {
  const joint = useJoint();
  const variant = useVariant();
  const edit = useOpen((s) => s.edit);
  const readOnly = useOpen((s) => s.readOnly);
  const shelf = useShelf();
  const [dialog, setDialog] = useState<'new' | 'plan' | undefined>();
  const [onBuild, setOnBuild] = useState<string | undefined>();
  const line = useLineOf(joint, variant);
  const own = joint.builds.filter((b) => b.variantId === variant.id);
  const chosen = own.find((b) => b.id === onBuild)?.id ?? own.at(-1)?.id;
  const close = () => setDialog(undefined);

  const begin = (kind: BenchTest['kind'], values: Readonly<Record<string, number | string>> = {}) => {
    close();
    const made = newBuild(variant, `${variant.name}-1`);
    const t = newTest(kind, chosen ?? made.id, shelf, values);
    edit(`New test: ${TEST_NAMES[kind].toLowerCase()}`, (d) => {
      if (!chosen) d.builds.push(made);
      d.tests.push(t);
    });
    onBegun(t.id);
  };

  return (
    <div className="space-y-1.5 border-t border-rule py-2.5">
      {chosen ? (
        <ChoiceField
          label="On build"
          value={chosen}
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
      <button type="button" className="btn block w-full" aria-pressed={live} onClick={() => onLive(!live)}>
        {live ? 'Back to the tests' : 'Live rig'}
      </button>
      <NewTestDialog open={dialog === 'new'} onClose={close} onChoose={(kind) => begin(kind)} />
      <PlanPanel open={dialog === 'plan'} line={line} onClose={close} onBegin={(p) => begin(p.kind, p.values)} />
    </div>
  );
});
