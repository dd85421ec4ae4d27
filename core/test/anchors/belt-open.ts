import type { Anchored } from './anchor.ts';
import { belt } from './belt.ts';

/** The same belt cut and clamped, its pulleys 80 mm apart. */
export const beltOpen: Anchored = {
  kind: 'belt',
  further: true,
  params: { ...belt.params, closure: 'open', setBy: 'centre', centre: 0.08 },
  duty: belt.duty,
  worked: {
    centre: [0.08, 'as entered'],
    span: [0.07719225948, '√(80² − (r₂ − r₁)²) mm'],
    wrap: [2.610149359, 'π − 2·asin((r₂ − r₁)/80 mm)'],
    swing: [3.673035948, 'π + 2·asin((r₂ − r₁)/80 mm)'],
    mesh: [9.139199801, '22 teeth by the wrap over a turn'],
    length: [0.2975493202, 'both spans and both arcs'],
    pluck: [312.8849283, '√(35 N/(2.5 kg/m²·6 mm)) over twice the span'],
    spanStiffness: [416.813619, 'r₂²·2.7 MN/m·6 mm by both spans'],
    shear: [4.147209607, '2.4 N a tooth and millimetre on 6 mm, 9.139 teeth, at r₂'],
    takeUpTension: [0.0004, 'half a hundredth of 80 mm'],
  },
};
