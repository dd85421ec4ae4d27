import { displayUnit, fromSi, plainNumber, toSi, type LineReader } from '@gristmill/core';
import { useEffect, useRef } from 'react';
import { roundTicks } from '../../parts/ticks.ts';
import { useUnits } from '../../state/prefs.ts';

/** Seconds in sight, and the samples that are in sight at least. */
const WINDOW = 8;
const LEAST = 400;

/**
 * The last seconds of one channel, drawn every frame from the reader's own columns: nothing is copied, so memory stays
 * flat.
 */
export function LivePlot({ reader, channel }: { reader: LineReader; channel: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const units = useUnits();
  useEffect(() => {
    let going = true;
    let [low, high] = [0, 1];
    const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
    const draw = (): void => {
      const c = canvas.current;
      if (!going || !c) return;
      const scale = window.devicePixelRatio || 1;
      const [w, h] = [c.clientWidth, c.clientHeight];
      if (c.width !== Math.round(w * scale) || c.height !== Math.round(h * scale))
        [c.width, c.height] = [Math.round(w * scale), Math.round(h * scale)];
      const g = c.getContext('2d')!;
      g.setTransform(scale, 0, 0, scale, 0, 0);
      g.clearRect(0, 0, w, h);
      const values = reader.column(channel);
      const time = reader.column('time');
      const info = reader.channels.find((x) => x.id === channel);
      if (values && values.length > 1 && info) {
        const n = values.length;
        const rate =
          reader.rate || (time && time.length > 1 ? (time.length - 1) / Math.max(1e-9, time[n - 1]! - time[0]!) : 1000);
        const seen = Math.max(WINDOW, Math.round(LEAST / rate));
        const from = Math.max(0, n - Math.ceil(seen * rate));
        let [a, b] = [Infinity, -Infinity];
        for (let i = from; i < n; i++) {
          const v = values[i]!;
          if (v < a) a = v;
          if (v > b) b = v;
        }
        const room = Math.max((b - a) * 0.08, Math.abs(b) * 1e-6, 1e-12);
        // The scale follows slowly, so that it does not jump with every sample.
        [low, high] =
          low === 0 && high === 1
            ? [a - room, b + room]
            : [
                low + 0.2 * (Math.min(a - room, low) - low) + 0.02 * (a - room - low),
                high + 0.2 * (Math.max(b + room, high) - high) + 0.02 * (b + room - high),
              ];
        const left = 62;
        const y = (v: number) => h - 16 - ((v - low) / (high - low)) * (h - 26);
        const unit = displayUnit(info.quantity, units);
        g.font = '11px "Spline Sans Mono Variable", monospace';
        g.fillStyle = colour('--muted');
        g.strokeStyle = colour('--rule');
        g.lineWidth = 1;
        for (const tick of roundTicks(fromSi(low, unit), fromSi(high, unit), 5)) {
          const v = toSi(tick, unit);
          g.beginPath();
          g.moveTo(left, y(v));
          g.lineTo(w - 4, y(v));
          g.stroke();
          g.textAlign = 'right';
          g.fillText(plainNumber(tick, 6), left - 5, y(v) + 4);
        }
        g.fillText(`${info.name}, ${unit.symbol || 'counts'}; last ${seen} s`, w - 6, h - 4);
        g.strokeStyle = colour('--found');
        g.lineWidth = 1.3;
        g.beginPath();
        // A pixel's column shows its least and its most.
        const per = Math.max(1, (n - from) / Math.max(1, w - left));
        for (let p = 0; from + p * per < n; p++) {
          const i0 = Math.floor(from + p * per);
          const i1 = Math.min(n, Math.max(i0 + 1, Math.floor(from + (p + 1) * per)));
          let [lo, hi] = [values[i0]!, values[i0]!];
          for (let i = i0; i < i1; i++) {
            if (values[i]! < lo) lo = values[i]!;
            if (values[i]! > hi) hi = values[i]!;
          }
          const x = left + ((i0 - from) / Math.max(1, n - from)) * (w - left - 4);
          if (p === 0) g.moveTo(x, y(lo));
          else g.lineTo(x, y(lo));
          g.lineTo(x, y(hi));
        }
        g.stroke();
      }
      requestAnimationFrame(draw);
    };
    requestAnimationFrame(draw);
    return () => {
      going = false;
    };
  }, [reader, channel, units]);
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={`Live plot of ${reader.channels.find((x) => x.id === channel)?.name ?? channel}`}
      className="block h-full w-full"
    />
  );
}
