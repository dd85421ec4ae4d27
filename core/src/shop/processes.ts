import type { Process, ProcessType } from '../schema/process-schema.ts';
import { STARTING } from './factor.ts';

/** What a process is taken to do until it is measured: likely values with their standard uncertainties, lengths in m. */
export interface ProcessStart {
  readonly name: string;
  /** Parts are built up in layers on a bed. */
  readonly prints: boolean;
  readonly scale: readonly [number, number];
  readonly out: readonly [number, number];
  readonly into: readonly [number, number];
  readonly foot: readonly [number, number];
  readonly footHigh: readonly [number, number];
  /** Standard deviation of a made size about what is usual for it. */
  readonly spread: number;
}

/**
 * Starting values by type of process. Sources: printed trials of small gears (contours 0 to 0.15 mm out on a side, holes
 * 0.05 to 0.25 mm small); a beam takes half its kerf off every side, so that outsides are small and holes wide. Own
 * choice within those; a coupon replaces them.
 */
export const PROCESS_STARTS: Readonly<Record<ProcessType, ProcessStart>> = {
  filament: {
    name: 'Filament printer',
    prints: true,
    scale: [-0.0015, 0.003],
    out: [5e-5, 6e-5],
    into: [8e-5, 7e-5],
    foot: [1.2e-4, 1e-4],
    footHigh: [3e-4, 1.5e-4],
    spread: 4e-5,
  },
  resin: {
    name: 'Resin printer',
    prints: true,
    scale: [-0.003, 0.004],
    out: [3e-5, 4e-5],
    into: [5e-5, 5e-5],
    foot: [1e-4, 1e-4],
    footHigh: [3e-4, 2e-4],
    spread: 2.5e-5,
  },
  powder: {
    name: 'Powder printer',
    prints: true,
    scale: [0, 0.002],
    out: [6e-5, 6e-5],
    into: [9e-5, 8e-5],
    foot: [0, 1e-5],
    footHigh: [1e-4, 1e-4],
    spread: 6e-5,
  },
  cutter: {
    name: 'Laser or water-jet cutter',
    prints: false,
    scale: [0, 0.0005],
    out: [-8e-5, 6e-5],
    into: [-8e-5, 6e-5],
    foot: [0, 1e-5],
    footHigh: [1e-4, 1e-4],
    spread: 2.5e-5,
  },
  mill: {
    name: 'Milling machine',
    prints: false,
    scale: [0, 0.0002],
    out: [0, 2e-5],
    into: [0, 2e-5],
    foot: [0, 1e-5],
    footHigh: [1e-4, 1e-4],
    spread: 1.2e-5,
  },
};

const p = (
  id: string,
  name: string,
  type: ProcessType,
  machine: string,
  tool: number,
  material: string,
  layer: number,
  settings: string,
): Process => ({
  id,
  name,
  type,
  machine,
  tool,
  material,
  layer,
  settings,
  direction: '',
  compensates: 'outline',
  foot: 'none',
  fits: [],
  source: STARTING,
});

/** A process of each type to begin from, by what it is. */
export const PROCESSES: readonly Process[] = [
  p('filament-04', 'Filament, nozzle 0.4', 'filament', 'Filament printer', 4e-4, 'pa-cf', 2e-4, 'as usual'),
  p('resin-50', 'Resin, 50 µm', 'resin', 'Resin printer', 5e-5, 'resin', 5e-5, 'as usual'),
  p('powder-100', 'Powder, 0.1', 'powder', 'Powder printer', 4e-4, 'pa12', 1e-4, 'as usual'),
  p('cutter', 'Laser-cut sheet', 'cutter', 'Laser cutter', 1.5e-4, 'pom', 0, 'as usual'),
  p('mill', 'Milled', 'mill', 'Milling machine', 3e-3, 'en-aw-6082', 0, 'as usual'),
];
