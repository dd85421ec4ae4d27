import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useCrank } from '../../../state/crank.ts';
import { usePrefs } from '../../../state/prefs.ts';
import type { PartMesh } from '../../../workers/solid-api.ts';
import type { Motion } from '@gristmill/core';
import type { CutAxis, StageScene } from './scene.ts';

/** A body for the canvas: its colour by the name it has on the sheet. */
export interface Shown {
  readonly id: string;
  readonly mesh: PartMesh;
  readonly motions: readonly Motion[];
  readonly tone: string;
}

/** A colour of the sheet as the canvas takes it. */
const tone = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/**
 * Bodies in space, with what turns, cuts and draws them apart.
 *
 * @param bodies what is shown; undefined while it is being made
 * @param trouble why there is nothing to show, as a sentence
 */
export function SpaceCanvas({
  name,
  bodies,
  trouble,
  waiting,
  picked,
  onPick,
  children,
}: {
  name: string;
  bodies: readonly Shown[] | undefined;
  trouble: string;
  waiting: string;
  picked?: string | undefined;
  onPick?: (id: string | undefined) => void;
  children?: ReactNode;
}) {
  const sheet = usePrefs((s) => s.sheet);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [scene, setScene] = useState<StageScene | undefined>();
  const [lacking, setLacking] = useState('');
  const [apart, setApart] = useState(0);
  const [axis, setAxis] = useState<CutAxis>('none');
  const [cutAt, setCutAt] = useState(0.5);
  const seen = useRef(false);
  const pressed = useRef<readonly [number, number] | undefined>(undefined);
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
      seen.current = false;
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
    if (!scene || !bodies) return;
    scene.show(
      bodies.map((b) => ({ ...b, tone: tone(b.tone) })),
      tone('--muted'),
      tone('--ink'),
      !seen.current,
    );
    seen.current = true;
  }, [scene, bodies, sheet]);
  useEffect(() => {
    if (!scene) return;
    scene.pose(useCrank.getState().angle, apart);
    // At every frame that the crank turns, past the page: only the canvas changes.
    return useCrank.subscribe((s, was) => {
      if (s.angle !== was.angle) scene.pose(s.angle, apart);
    });
  }, [scene, apart, bodies, sheet]);
  useEffect(() => scene?.alone(picked), [scene, picked, bodies, sheet]);
  useEffect(() => scene?.cut(axis, cutAt), [scene, axis, cutAt, bodies]);
  const pieces = scene && bodies ? bodies.reduce((n, b) => n + b.motions.length, 0) : 0;
  const said = lacking || trouble;
  return (
    <>
      <div className="relative min-h-0 flex-1">
        <canvas
          ref={canvas}
          className="absolute inset-0 h-full w-full touch-none"
          tabIndex={0}
          role="img"
          data-pieces={pieces}
          aria-label={`${name} in space. Drag or arrow keys go round it, wheel or + and − come nearer, 0 fits.`}
          onPointerDown={(e) => (pressed.current = [e.clientX, e.clientY])}
          onPointerUp={(e) => {
            const from = pressed.current;
            if (!onPick || !from || Math.hypot(e.clientX - from[0], e.clientY - from[1]) > 4) return;
            const r = e.currentTarget.getBoundingClientRect();
            const id = scene?.bodyAt(
              ((e.clientX - r.left) / r.width) * 2 - 1,
              1 - ((e.clientY - r.top) / r.height) * 2,
            );
            onPick(id === picked ? undefined : id);
          }}
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
            else if (e.key === 'Escape' && picked !== undefined) onPick?.(undefined);
            else return;
            e.preventDefault();
            e.stopPropagation();
          }}
        />
        {said ? (
          <p className="absolute inset-x-8 top-8" role="alert">
            {said}
          </p>
        ) : waiting ? (
          <p className="label absolute left-4 top-3" role="status">
            {waiting}
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
        {children}
        <span className="label ml-auto">{pieces > 0 ? `${pieces} pieces` : ''}</span>
      </div>
    </>
  );
}
