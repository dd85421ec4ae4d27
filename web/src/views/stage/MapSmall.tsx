import { formatQuantity, type StageMap } from '@gristmill/core';
import { Dialog } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import { useCrank } from '../../state/crank.ts';
import { usePrefs, useUnits } from '../../state/prefs.ts';

const TURN = 2 * Math.PI;

type Rgb = readonly [number, number, number];

/** A colour token of the sheet as numbers. */
function token(name: string): Rgb {
  const hex = getComputedStyle(document.documentElement).getPropertyValue(name).trim().slice(1);
  return [0, 2, 4].map((i) => parseInt(hex.slice(i, i + 2), 16)) as unknown as Rgb;
}

/** Paints a map one pixel a value: fault, tight fading to ample, nothing. */
function paint(canvas: HTMLCanvasElement, map: StageMap): void {
  const context = canvas.getContext('2d');
  if (!context) return;
  const [none, fault, tight, ample] = [
    token('--panel'),
    token(map.low === 'fault' ? '--fail' : '--found'),
    token('--expected'),
    token('--expected-soft'),
  ];
  const image = context.createImageData(map.columns, map.rows);
  for (let i = 0; i < map.values.length; i++) {
    const v = map.values[i]!;
    const share = Math.max(0, Math.min(1, (v - map.limit) / (map.ample - map.limit)));
    const c: Rgb =
      v === Infinity
        ? none
        : v < map.limit
          ? fault
          : ([0, 1, 2].map((k) => tight[k]! + (ample[k]! - tight[k]!) * share) as unknown as Rgb);
    image.data.set([c[0], c[1], c[2], 255], 4 * i);
  }
  context.putImageData(image, 0, 0);
}

function MapCanvas({
  map,
  className,
  label,
  onPick,
}: {
  map: StageMap;
  className: string;
  label: string;
  onPick?: (row: number, column: number) => void;
}) {
  const ref = useRef<HTMLCanvasElement>(null);
  const sheet = usePrefs((s) => s.sheet);
  const turn = useCrank((s) => s.turn);
  useEffect(() => {
    if (ref.current) paint(ref.current, map);
  }, [map, sheet]);
  const at = (e: React.PointerEvent<HTMLCanvasElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    const [x, y] = [
      Math.max(0, Math.min(0.9999, (e.clientX - box.left) / box.width)),
      Math.max(0, Math.min(0.9999, (e.clientY - box.top) / box.height)),
    ];
    if (e.buttons !== 0) turn(x * TURN - (((useCrank.getState().angle % TURN) + TURN) % TURN));
    onPick?.(Math.floor(y * map.rows), Math.floor(x * map.columns));
  };
  return (
    <canvas
      ref={ref}
      width={map.columns}
      height={map.rows}
      role="img"
      aria-label={label}
      className={`block w-full cursor-ew-resize touch-none border-b border-l border-rule [image-rendering:pixelated] ${className}`}
      onPointerDown={(e) => (e.currentTarget.setPointerCapture(e.pointerId), at(e))}
      onPointerMove={at}
    />
  );
}

/** Where the crank stands, over a map. */
function Cursor() {
  const angle = useCrank((s) => s.angle);
  return (
    <span
      aria-hidden
      className="pointer-events-none absolute inset-y-0 w-px bg-ink/70"
      style={{ left: `${(100 * (((angle % TURN) + TURN) % TURN)) / TURN}%` }}
    />
  );
}

/** The clearance of every tooth over a turn, small beside the courses and large on demand. */
export function MapSmall({ map, caption }: { map: StageMap; caption: string }) {
  const units = useUnits();
  const [open, setOpen] = useState(false);
  const [picked, setPicked] = useState<readonly [number, number]>();
  let [least, at] = [Infinity, 0];
  map.values.forEach((v, i) => {
    if (v < least) [least, at] = [v, i];
  });
  const say = (v: number) => (v === Infinity ? map.words[3] : formatQuantity(v, map.quantity, units, 3));
  const label = `${map.name} over a turn of the crank, least ${say(least)}`;
  const [row, column] = picked ?? [Math.floor(at / map.columns), at % map.columns];
  const value = map.values[row * map.columns + column]!;
  const kind = value === Infinity ? 3 : value < map.limit ? 0 : value < map.ample ? 1 : 2;
  const fault = map.low === 'fault' && least < map.limit;
  const legend = [
    [map.low === 'fault' ? '--fail' : '--found', 0],
    ['--expected', 1],
    ['--expected-soft', 2],
    ...([...map.values].some((v) => v === Infinity) ? [['--panel', 3] as const] : []),
  ] as const;
  return (
    <figure className="min-w-0 flex-1" data-course="map">
      <figcaption className={caption}>
        <button
          type="button"
          className="mend truncate self-start !px-0"
          title={map.name}
          aria-label={`Open the map: ${map.name}`}
          onClick={() => setOpen(true)}
        >
          {map.name}
        </button>
        <span className={`num whitespace-nowrap ${fault ? 'text-fail' : 'text-expected'}`}>
          {fault ? '✕ ' : ''}
          {map.low === 'fault' ? say(least) : ''}&#8203;
        </span>
      </figcaption>
      <div className="relative">
        <MapCanvas map={map} className="h-[38px]" label={label} />
        <Cursor />
      </div>
      <Dialog.Root open={open} onOpenChange={setOpen}>
        <Dialog.Portal>
          <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/15" />
          <Dialog.Content
            aria-describedby={undefined}
            className="fixed left-1/2 top-[8vh] z-30 w-[min(860px,94vw)] -translate-x-1/2 border border-strong bg-panel px-5 py-4"
          >
            <div className="flex items-baseline justify-between">
              <Dialog.Title className="text-[16px] font-semibold">{map.name}</Dialog.Title>
              <Dialog.Close className="btn-quiet">Close</Dialog.Close>
            </div>
            <p className="label pb-2">
              One row a {map.rowName}, from 1 down to {map.rows}; one turn of the crank from left to right. Drag to turn
              the crank.
            </p>
            <div className="relative">
              <MapCanvas
                map={map}
                className="h-[52vh]"
                label={`${label}, large`}
                onPick={(r, c) => setPicked([r, c])}
              />
              <Cursor />
            </div>
            <p className="num flex flex-wrap items-center gap-x-4 pt-2 text-[12.5px]">
              <span>
                {map.rowName} {row + 1} at {((360 * column) / map.columns).toFixed(0)}°: {say(value)}
                {value === Infinity ? '' : `, ${map.words[kind]!}`}
              </span>
              {open &&
                legend.map(([color, k]) => (
                  <span key={k} className="label flex items-center gap-1">
                    <span
                      aria-hidden
                      className="inline-block size-3 border border-rule"
                      style={{ background: `var(${color})` }}
                    />
                    {map.words[k]}
                    {k === 1 ? `, below ${say(map.ample)}` : ''}
                  </span>
                ))}
            </p>
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
    </figure>
  );
}
