import { svgPath, type Outline } from '@gristmill/core';

const MM = 1000;
/** Outlines that stay the same while the crank turns keep their path text. */
const texts = new WeakMap<Outline, string>();

/** An outline as the path of an SVG, in millimetres. */
export function pathText(o: Outline): string {
  let d = texts.get(o);
  if (d === undefined) texts.set(o, (d = svgPath(o, MM, 3)));
  return d;
}
