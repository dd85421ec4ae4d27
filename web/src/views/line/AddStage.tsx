import { LEAST_ADDED, mustSize, stageKind, stageKinds } from '@gristmill/core';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { toast } from 'sonner';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { newId } from '../../state/identifier.ts';
import { editVariant, useOpen, useVariant } from '../../state/open.ts';
import { lacksInWorker, stageInWorker } from '../../workers/sizing.ts';

/** A stage that is about to be added: its kind, and the ratio and outside that it is to have. */
interface Asked {
  readonly kind: string;
  readonly ratio: number;
  readonly lacks: number;
  /** Largest dimension across the axis, m; 0 where nobody minds. */
  readonly outside: number;
}

/** Adds a stage at the output: asks for its ratio, with what the line still lacks to begin from, and sizes it there. */
export function AddStage() {
  const variant = useVariant();
  const readOnly = useOpen((s) => s.readOnly);
  const [asked, setAsked] = useState<Asked>();
  const [busy, setBusy] = useState(false);
  const ask = async (kind: string) => {
    const lacks = await lacksInWorker(useOpen.getState().joint!, variant).catch(() => 3);
    const most = mustSize(useOpen.getState().joint!);
    setAsked({ kind, ratio: lacks, lacks, outside: Number.isFinite(most) ? most : 0 });
  };
  const add = async ({ kind: id, ratio, outside }: Asked) => {
    setBusy(true);
    const params = await stageInWorker(useOpen.getState().joint!, id, ratio, outside).catch(() => undefined);
    setBusy(false);
    if (!params) return void toast('The stage could not be sized: what computes did not come. Try again.');
    setAsked(undefined);
    editVariant(
      `Add ${stageKind(id)!.name.toLowerCase()} stage`,
      (v) => void v.stages.push({ id: newId(), kind: id, params }),
    );
  };
  if (asked)
    return (
      <form
        className="flex flex-wrap items-center gap-3"
        aria-label="New stage"
        onSubmit={(e) => {
          e.preventDefault();
          void add(asked);
        }}
      >
        <QuantityField
          label={`Ratio of the new ${stageKind(asked.kind)!.name.toLowerCase()} stage`}
          quantity="ratio"
          value={asked.ratio}
          min={1}
          max={1000}
          step={0.5}
          digits={3}
          onChange={(ratio) => setAsked({ ...asked, ratio })}
        />
        <QuantityField
          label="Outside, at most (0: as it comes)"
          quantity="length"
          value={asked.outside}
          min={0}
          max={5}
          step={5e-3}
          onChange={(outside) => setAsked({ ...asked, outside })}
        />
        <button type="submit" className="btn" disabled={busy}>
          Add the stage
        </button>
        <button type="button" className="btn-quiet" onClick={() => setAsked(undefined)}>
          Not now
        </button>
        <span className="label">
          {!variant.stages.length
            ? 'What the brief asks of the motor'
            : asked.lacks > LEAST_ADDED
              ? `The line lacks ${asked.lacks} : 1 for the brief`
              : 'The line has all the ratio that it needs'}
          ; it is sized for the torque at the output.
        </span>
      </form>
    );
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="btn" disabled={readOnly || variant.stages.length >= 12}>
        Add stage
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          className="z-20 max-h-(--radix-dropdown-menu-content-available-height) max-w-[430px] overflow-y-auto border border-strong bg-panel py-1"
        >
          {stageKinds().map((k) => (
            <DropdownMenu.Item
              key={k.id}
              onSelect={() => void ask(k.id)}
              className="cursor-pointer px-4 py-1 data-[highlighted]:bg-ink data-[highlighted]:text-panel"
            >
              <b className="font-semibold">{k.name}</b> <span className="text-[12px]">{k.summary}</span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
