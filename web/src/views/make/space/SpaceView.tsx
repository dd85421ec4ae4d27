import { motionsOf, placeFrame, sayProblem, type StageRecord } from '@gristmill/core';
import { useQuery } from '@tanstack/react-query';
import { Dialog } from 'radix-ui';
import { useMemo } from 'react';
import { useEdits } from '../../../state/shelf.ts';
import { useStage } from '../../../state/stages.ts';
import { partMeshes } from '../../../workers/solid.ts';
import { SpaceCanvas, type Shown } from './SpaceCanvas.tsx';

/** Surfaces to look at may stray so far from the exact ones, m: less than a pixel shows. */
const COARSE = 2.5e-5;
const TONES = ['--part', '--belt', '--part-b', '--expected-soft', '--rule'];

function Scene({ stage, name }: { stage: StageRecord; name: string }) {
  const edits = useEdits();
  const opened = useStage(stage);
  const parts = useMemo(() => (opened?.ok ? opened.value.parts() : opened), [opened]);
  const meshed = useQuery({
    queryKey: ['space', stage.kind, stage.params, edits],
    queryFn: ({ signal }) =>
      partMeshes({ kind: stage.kind, params: stage.params, shop: edits, chordError: COARSE, compensation: 0 }, signal),
    staleTime: Infinity,
    gcTime: 60_000,
  });
  const bodies = useMemo(() => {
    if (!meshed.data?.ok || !parts?.ok) return undefined;
    return meshed.data.value.flatMap((mesh, i): Shown[] => {
      const part = parts.value.find((p) => p.id === mesh.id);
      const places = part?.places;
      if (!places) return [];
      const motions = motionsOf({
        places: (crank) => places(crank).map(placeFrame),
        apart: places(0).map((b) => b.apart),
        ...(part.sways !== undefined && { sways: part.sways }),
      });
      return [{ id: mesh.id, mesh, motions, tone: TONES[i % TONES.length]! }];
    });
  }, [meshed.data, parts]);
  const trouble =
    meshed.data && !meshed.data.ok
      ? sayProblem(meshed.data.problem)
      : meshed.isError
        ? 'The bodies could not be made. Close this and try again.'
        : '';
  return (
    <SpaceCanvas name={name} bodies={bodies} trouble={trouble} waiting={meshed.isPending ? 'Making the bodies…' : ''} />
  );
}

/** A stage's bodies in space, over the sheet. */
export default function SpaceView({ stage, name, onClose }: { stage: StageRecord; name: string; onClose: () => void }) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/25" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-6 z-30 flex flex-col border border-strong bg-panel"
        >
          <div className="flex items-baseline justify-between border-b border-rule px-4 py-2">
            <Dialog.Title className="text-[14px]">{name} in space</Dialog.Title>
            <Dialog.Close className="btn-quiet">Close</Dialog.Close>
          </div>
          <Scene stage={stage} name={name} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
