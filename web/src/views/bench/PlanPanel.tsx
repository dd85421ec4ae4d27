import { LIMIT_KINDS, testPlan, type LineReport, type PlannedTest } from '@gristmill/core';
import { Dialog } from 'radix-ui';
import { useMemo } from 'react';
import { QuantityText } from '../../parts/FigureText.tsx';
import { Said } from '../../parts/Said.tsx';
import { useJoint, useVariant } from '../../state/open.ts';
import { useShelf } from '../../state/shelf.ts';

const STAGES = { 1: 'First, without load', 2: 'Then under load', 3: 'Last, what can hurt it' } as const;

/** Which tests answer the brief, what to rig for each, in a safe order; each can be begun from here. */
export function PlanPanel({
  open,
  line,
  onClose,
  onBegin,
}: {
  open: boolean;
  line: LineReport | undefined;
  onClose: () => void;
  onBegin: (planned: PlannedTest) => void;
}) {
  const joint = useJoint();
  const variant = useVariant();
  const shelf = useShelf();
  const plan = useMemo(
    () => (line && open ? testPlan(joint, variant, line, shelf.instruments) : []),
    [joint, variant, line, shelf, open],
  );
  const done = plan.filter((p) => p.done).length;
  return (
    <Dialog.Root open={open} onOpenChange={(o) => (o ? undefined : onClose())}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/15" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[8vh] z-30 max-h-[82vh] w-[min(860px,94vw)] -translate-x-1/2 overflow-y-auto border border-strong bg-panel px-5 py-4"
        >
          <div className="flex items-baseline justify-between">
            <Dialog.Title className="text-[16px] font-semibold">Test plan, variant {variant.name}</Dialog.Title>
            <Dialog.Close className="btn-quiet">Close</Dialog.Close>
          </div>
          <p className="label pb-1">
            What answers the brief’s limits with the shop’s instruments, fine enough to tell a third of the margin.{' '}
            {plan.length ? `${done} of ${plan.length} done.` : ''}
          </p>
          {plan.length === 0 ? (
            <p className="py-2">
              No limit of the brief has a test yet: set play, stiffness, torque, turn-back or repeatability in the
              Brief.
            </p>
          ) : null}
          {([1, 2, 3] as const).map((order) => {
            const list = plan.filter((p) => p.order === order);
            return list.length ? (
              <section key={order} aria-label={STAGES[order]} className="pb-2">
                <h2 className="rule-b pb-1">{STAGES[order]}</h2>
                <ul>
                  {list.map((p) => (
                    <li
                      key={`${p.kind}-${p.row}`}
                      className="rule-b grid grid-cols-[1.2rem_minmax(0,1fr)_auto] items-baseline gap-2 py-1.5"
                    >
                      <span role="img" aria-label={p.done ? 'done' : 'open'}>
                        {p.done ? '●' : '○'}
                      </span>
                      <div>
                        <b className="font-semibold">{p.name}</b> for {LIMIT_KINDS[p.row].name.toLowerCase()}, margin{' '}
                        <QuantityText value={p.margin} quantity={LIMIT_KINDS[p.row].quantity} />
                        <p className="label">
                          <Said>{p.rig}</Said>
                          {p.enough ? '' : '. Not fine enough for this margin.'}
                        </p>
                      </div>
                      <button
                        type="button"
                        className="btn"
                        aria-label={`Begin ${p.name} for ${LIMIT_KINDS[p.row].name}`}
                        onClick={() => onBegin(p)}
                      >
                        {p.done ? 'Repeat' : 'Begin'}
                      </button>
                    </li>
                  ))}
                </ul>
              </section>
            ) : null;
          })}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
