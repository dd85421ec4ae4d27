import { sayProblem, type StageRecord } from '@gristmill/core';
import { useQuery } from '@tanstack/react-query';
import { Dialog } from 'radix-ui';
import { useEffect, useMemo, useRef, useState } from 'react';
import { usePrefs } from '../../../state/prefs.ts';
import { useEdits } from '../../../state/shelf.ts';
import { useStage } from '../../../state/stages.ts';
import { partMeshes } from '../../../workers/solid.ts';
import type { CutAxis, StageScene } from './scene.ts';

/** Surfaces to look at may stray so far from the exact ones, m: less than a pixel shows. */
const COARSE = 2.5e-5;
const TONES = ['--part', '--belt', '--part-b', '--expected-soft', '--rule'];

/** A colour of the sheet as the canvas takes it. */
const tone = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

function Scene({ stage, name }: { stage: StageRecord; name: string }) {
  const edits = useEdits();
  const sheet = usePrefs((s) => s.sheet);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [scene, setScene] = useState<StageScene | undefined>();
  const [lacking, setLacking] = useState('');
  const [apart, setApart] = useState(0);
  const [axis, setAxis] = useState<CutAxis>('none');
  const [cutAt, setCutAt] = useState(0.5);
  const opened = useStage(stage);
  const parts = useMemo(() => (opened?.ok ? opened.value.parts() : opened), [opened]);
  const meshed = useQuery({
    queryKey: ['space', stage.kind, stage.params, edits],
    queryFn: ({ signal }) =>
      partMeshes({ kind: stage.kind, params: stage.params, shop: edits, chordError: COARSE, compensation: 0 }, signal),
    staleTime: Infinity,
    gcTime: 60_000,
  });
  useEffect(() => {
    let made: StageScene | undefined;
    let watch: ResizeObserver | undefined;
    let gone = false;
    void import('./scene.ts').then(({ StageScene: Made }) => {
      if (gone || !canvas.current) return;
      if (!document.createElement('canvas').getContext('webgl2'))
        return setLacking(
          'This browser does not offer WebGL, which bodies in space are drawn with. Switch on hardware acceleration, or open an STL or STEP file elsewhere.',
        );
      made = new Made(canvas.current);
      watch = new ResizeObserver(
        ([entry]) =>
          entry && made?.resize(Math.max(50, entry.contentRect.width), Math.max(50, entry.contentRect.height)),
      );
      watch.observe(canvas.current.parentElement!);
      setScene(made);
    });
    return () => {
      gone = true;
      watch?.disconnect();
      made?.end();
      setScene(undefined);
    };
  }, []);
  useEffect(() => {
    if (!scene || !meshed.data?.ok || !parts?.ok) return;
    scene.show(parts.value, meshed.data.value, TONES.map(tone), tone('--muted'), tone('--ink'));
  }, [scene, meshed.data, parts, sheet]);
  useEffect(() => scene?.explode(apart), [scene, apart, meshed.data, sheet]);
  useEffect(() => scene?.cut(axis, cutAt), [scene, axis, cutAt, meshed.data]);
  const shown =
    scene && meshed.data?.ok && parts?.ok
      ? meshed.data.value
          .map((m) => parts.value.find((p) => p.id === m.id)?.places?.(0).length ?? 0)
          .reduce((a, b) => a + b, 0)
      : 0;
  const trouble =
    lacking ||
    (meshed.data && !meshed.data.ok
      ? sayProblem(meshed.data.problem)
      : meshed.isError
        ? 'The bodies could not be made. Close this and try again.'
        : '');
  return (
    <>
      <div className="relative min-h-0 flex-1">
        <canvas
          ref={canvas}
          className="absolute inset-0 h-full w-full touch-none"
          tabIndex={0}
          role="img"
          data-pieces={shown}
          aria-label={`${name} in space. Drag or arrow keys go round it, wheel or + and − come nearer, 0 fits.`}
          onKeyDown={(e) => {
            const way: Record<string, [number, number]> = {
              ArrowLeft: [-0.12, 0],
              ArrowRight: [0.12, 0],
              ArrowUp: [0, -0.1],
              ArrowDown: [0, 0.1],
            };
            if (way[e.key]) scene?.orbit(...way[e.key]!);
            else if (e.key === '+' || e.key === '=') scene?.zoom(0.85);
            else if (e.key === '-') scene?.zoom(1.18);
            else if (e.key === '0') scene?.fit();
            else return;
            e.preventDefault();
            e.stopPropagation();
          }}
        />
        {trouble ? (
          <p className="absolute inset-x-8 top-8" role="alert">
            {trouble}
          </p>
        ) : meshed.isPending ? (
          <p className="label absolute left-4 top-3" role="status">
            Making the bodies…
          </p>
        ) : null}
      </div>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1 border-t border-rule px-4 py-2">
        <label className="flex items-center gap-2">
          Drawn apart{' '}
          <input
            type="range"
            min={0}
            max={1}
            step={0.01}
            value={apart}
            onChange={(e) => setApart(Number(e.target.value))}
            className="w-32 accent-[var(--ink)]"
          />
        </label>
        <label className="flex items-center gap-2">
          Cut
          <select aria-label="Cut" className="select" value={axis} onChange={(e) => setAxis(e.target.value as CutAxis)}>
            <option value="none">not</option>
            <option value="y">along the axis, from the front</option>
            <option value="x">along the axis, from the side</option>
            <option value="z">across the axis</option>
          </select>
        </label>
        <label className="flex items-center gap-2">
          at{' '}
          <input
            type="range"
            min={0.002}
            max={0.998}
            step={0.002}
            value={cutAt}
            disabled={axis === 'none'}
            onChange={(e) => setCutAt(Number(e.target.value))}
            aria-label="Place of the cut"
            className="w-32 accent-[var(--ink)]"
          />
        </label>
        <button type="button" className="btn" onClick={() => scene?.fit()}>
          Fit
        </button>
        <span className="label ml-auto">{shown > 0 ? `${shown} pieces; surfaces within 25 µm` : ''}</span>
      </div>
    </>
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
