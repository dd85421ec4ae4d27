import type { Process } from '../schema/process-schema.ts';
import { dryingTime } from '../shop/drying.ts';
import { area } from '../shape/outline.ts';
import { boundsOf } from '../shape/bounds.ts';
import { ORIGIN } from '../shape/outline.ts';
import { roundOf } from '../shape/round-of.ts';
import type { Solid } from '../shape/solid.ts';
import type { Part } from '../stage/contract.ts';
import { stated } from '../units/stated.ts';
import { PROCESS_STARTS } from '../shop/processes.ts';

/** How a part is printed, with reasons. */
export interface PartAdvice {
  readonly lies: string;
  readonly support: string;
  readonly walls: string;
  readonly seam: string;
  readonly bed: string;
  readonly material: string;
  readonly after: string;
  readonly caution: string;
}

/** Width of a laid line over the nozzle. */
const LINE = 1.1;
/** A pillar so many times as high as it is wide falls or shakes. */
const SLENDER = 4;

/** Heights at which the section of a body grows upwards, and downwards: what would hang in the air printed either way up. */
function hangs({ prisms }: Solid): { readonly up: boolean; readonly down: boolean } {
  const added = prisms.filter((p) => !p.cut);
  const levels = [...new Set(added.flatMap((p) => [p.from, p.to]))].sort((a, b) => a - b);
  const sections = levels.slice(0, -1).map((z, i) => {
    const middle = (z + levels[i + 1]!) / 2;
    return added
      .filter((p) => p.from < middle && middle < p.to)
      .reduce((s, p) => s + Math.abs(area(p.outer)) - p.holes.reduce((t, h) => t + Math.abs(area(h)), 0), 0);
  });
  const grows = (a: number, b: number) => b > 1.02 * a;
  return {
    up: sections.some((s, i) => i > 0 && grows(sections[i - 1]!, s)),
    down: sections.some((s, i) => i > 0 && grows(s, sections[i - 1]!)),
  };
}

const MATERIAL: Readonly<Record<string, readonly [bed: string, material: string, after: string]>> = {
  pla: [
    'Sticks to most beds at 55 to 60 °C.',
    'Prints dry as it comes; softens in a warm car.',
    'File or scrape; it chips when drilled fast.',
  ],
  petg: [
    'Sticks too well to bare glass and smooth sheet: a thin film of glue stick parts it.',
    '',
    'Strings are scraped off; do not heat it near a flame.',
  ],
  abs: [
    'Lifts at corners: a closed, warm chamber and a brim.',
    '',
    'Fumes: open the window. Vapour smoothing rounds flanks and bores: not for teeth.',
  ],
  asa: [
    'Lifts at corners: a closed, warm chamber and a brim.',
    '',
    'Fumes: open the window. Vapour smoothing rounds flanks and bores: not for teeth.',
  ],
  pc: ['Lifts at corners: bed at 110 °C, closed chamber.', '', 'Relieve it at 90 °C for two hours; it moves a little.'],
  pa12: [
    'Needs glue on the bed.',
    'Takes up water and swells by up to half a percent: measure it as it will be used.',
    'Blast or brush powder out of holes; wear a mask.',
  ],
  'pa-cf': [
    'Needs glue on the bed; hardly warps.',
    'Takes up water and grows tougher and softer over days: fits are measured after a week in the room.',
    'Fibres in the dust: wet-sand it, gloves and a mask. It wears brass nozzles within a spool, and holes close as it does.',
  ],
  resin: [
    'On supports, tilted by 15 to 30° to spread the pull of the film, or flat on the plate with its foot cut off.',
    'Cure it in water or turning: uneven light bends it, and it goes on shrinking for a day.',
    'Gloves and fresh air until it is cured; wash it twice.',
  ],
  tpu: ['Sticks well; print slowly.', '', 'Cut strings with a blade, do not file.'],
};

/**
 * How a printed part is laid on the bed, supported, walled and finished, with reasons: from its body, its material and how
 * hard its stage is loaded.
 *
 * @param reserve least strength over load of the stage it is in; NaN where nothing loads it
 */
export function partAdvice(
  part: Pick<Part, 'teeth' | 'name' | 'turns'> & { readonly solid: Solid },
  process: Pick<Process, 'type' | 'tool' | 'layer' | 'material'>,
  reserve: number,
): PartAdvice {
  const { solid, teeth } = part;
  const added = solid.prisms.filter((p) => !p.cut);
  const b = boundsOf(added.map((p) => ({ outline: p.outer, at: ORIGIN })))!;
  const high = Math.max(...added.map((p) => p.to)) - Math.min(...added.map((p) => p.from));
  const wide = Math.min(b.x1 - b.x0, b.y1 - b.y0);
  const { up, down } = hangs(solid);
  const round = solid.prisms.some((p) =>
    p.cut ? roundOf(p.outer) : p.holes.some((h) => roundOf(h)) || roundOf(p.outer),
  );
  const slender = high > SLENDER * wide;
  const lies = slender
    ? `Axis along the bed: upright, ${stated(high, 'length', 3)} on ${stated(wide, 'length', 3)} shakes, and a push across it parts its layers.`
    : `Axis upright: ${
        teeth
          ? 'teeth are drawn by the nozzle’s path and bent along their layers, not across them'
          : round
            ? 'bores and seats come out round, and forces in the plane run along the layers'
            : 'its contour is as exact as the machine, and its layers carry the forces in the plane'
      }.`;
  const turnOver = !slender && up && !down;
  const support = slender
    ? 'On supports along its whole length, or as two halves glued together.'
    : turnOver
      ? 'Turn it over: that way nothing hangs in the air.'
      : up && down
        ? 'Supports under what overhangs, with a gap of one layer; keep them out of bores.'
        : 'None: nothing hangs in the air.';
  const line = LINE * process.tool;
  const tooth = teeth ? (Math.PI / 2) * teeth.module : 0;
  const solidTeeth = teeth ? Math.ceil(tooth / 2 / line) : 0;
  const weak = reserve < 2;
  const ample = reserve > 5 || Number.isNaN(reserve);
  const count = Math.max(solidTeeth, weak ? 4 : ample ? 2 : 3);
  const fill = teeth ? (weak ? 60 : ample ? 25 : 40) : weak ? 50 : ample ? 15 : 25;
  const printer = PROCESS_STARTS[process.type].prints && process.type === 'filament';
  const told = MATERIAL[process.material];
  const dry = dryingTime(process.material) / 3600;
  return {
    lies,
    support,
    walls: printer
      ? `${count} walls of ${stated(line, 'length', 2)}${teeth ? `: a tooth is ${stated(tooth, 'length', 2)} thick, and is then solid` : ''}; ${fill} % infill${
          Number.isNaN(reserve)
            ? ''
            : `, since its stage stands ${reserve > 20 ? 'more than 20' : reserve.toFixed(1)} times its peak`
        }.`
      : 'Solid.',
    seam: printer
      ? teeth
        ? 'In a root, or spread over the teeth at random: on a flank it knocks once a turn.'
        : `At a corner or on a flat, not in a bore: it takes ${stated(5e-5, 'length')} to ${stated(1e-4, 'length')} of it.`
      : '',
    bed: told?.[0] ?? '',
    material: `${dry > 0 ? `Dry it for ${dry} hours before. ` : ''}${told?.[1] ?? ''}`.trim(),
    after: told?.[2] ?? '',
    caution: 'Eye protection when holes are reamed or supports broken off; gloves for resin.',
  };
}
