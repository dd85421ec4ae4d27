import { create } from 'zustand';

interface Crank {
  /** Angle of the stage's input, rad. */
  angle: number;
  running: boolean;
  turn(by: number): void;
  setRunning(running: boolean): void;
}

export const useCrank = create<Crank>((set) => ({
  angle: 0,
  running: false,
  turn: (by) => set((s) => ({ angle: s.angle + by })),
  setRunning: (running) => set({ running }),
}));

/** Turns of the crank per second while it runs. */
const PACE = 0.25;
let last = 0;

function frame(now: number): void {
  const { running, turn } = useCrank.getState();
  if (!running) return;
  if (last > 0) turn(Math.min(0.1, (now - last) / 1000) * PACE * 2 * Math.PI);
  last = now;
  requestAnimationFrame(frame);
}

export function runCrank(running: boolean): void {
  const was = useCrank.getState().running;
  useCrank.getState().setRunning(running);
  if (running && !was) {
    last = 0;
    requestAnimationFrame(frame);
  }
}
