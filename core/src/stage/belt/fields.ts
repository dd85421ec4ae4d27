import type { FieldSpec } from '../contract.ts';
import { findSection } from './model.ts';
import type { BeltParams } from './params.ts';

const MADE = [{ value: 'bought', label: 'Bought, metal' }, { value: 'printed', label: 'Printed' }];
const HOLD = [{ value: 'screws', label: 'Two set screws' }, { value: 'glue', label: 'Bonded bore' }, { value: 'key', label: 'Key or flat' }, { value: 'bolted', label: 'Bolted through' }];
const closed = (p: BeltParams) => p.closure === 'closed';

/** How a person edits a belt stage. */
export const beltFields: readonly FieldSpec<BeltParams>[] = [
  { as: 'choice', path: 'section', label: 'Section', group: 'Belt', help: 'Pitch and tooth form by standard designation.', options: (_p, shelf) => shelf.sections.map((s) => ({ value: s.id, label: s.name })) },
  { as: 'quantity', quantity: 'length', path: 'width', label: 'Belt width', group: 'Belt', help: 'Stiffness, tension and tooth shear grow with it.', step: 1e-3 },
  { as: 'count', path: 'z1', label: 'Driving pulley', group: 'Teeth', help: 'Teeth of the pulley on the input.', min: 6, max: 400 },
  { as: 'count', path: 'z2', label: 'Driven pulley', group: 'Teeth', help: 'Teeth of the pulley on the output.', min: 6, max: 400 },
  { as: 'choice', path: 'closure', label: 'Closure', group: 'Belt', help: 'Closed belts come in stocked lengths; an open-ended one is clamped or spliced to any.', options: () => [{ value: 'closed', label: 'Closed, stocked' }, { value: 'open', label: 'Open-ended, clamped' }] },
  { as: 'choice', path: 'setBy', label: 'Given', group: 'Belt', help: 'Give the belt and get the centre distance, or the other way round.', when: closed, options: () => [{ value: 'length', label: 'Belt length' }, { value: 'centre', label: 'Centre distance' }] },
  { as: 'choice', path: 'beltTeeth', label: 'Belt teeth', group: 'Belt', help: 'Closed lengths of this section that the shop stocks.', when: (p) => closed(p) && p.setBy === 'length', options: (p, shelf) => {
    const stock = findSection(p.section, shelf)?.stock ?? [];
    const all = stock.includes(p.beltTeeth) ? stock : [...stock, p.beltTeeth].sort((a, b) => a - b);
    return all.map((t) => ({ value: t, label: `${t}` }));
  } },
  { as: 'quantity', quantity: 'length', path: 'centre', label: 'Wanted centres', group: 'Belt', help: 'The nearest stocked belt is chosen; an open-ended one meets it exactly.', when: (p) => !closed(p) || p.setBy === 'centre', step: 1e-3 },
  { as: 'quantity', quantity: 'force', path: 'tension', label: 'Installation tension', group: 'Belt', help: 'Of one span at rest. Set it by the pitch of a plucked span.', step: 1 },
  { as: 'choice', path: 'idler', label: 'Idler', group: 'Idler', help: 'On the slack span: inside with teeth, or outside on the belt’s back.', options: () => [{ value: 'none', label: 'None' }, { value: 'inside', label: 'Inside, toothed' }, { value: 'outside', label: 'Outside, flat' }] },
  { as: 'count', path: 'idlerTeeth', label: 'Idler teeth', group: 'Idler', help: 'Teeth of the inside idler.', when: (p) => p.idler === 'inside', min: 6, max: 200 },
  { as: 'quantity', quantity: 'length', path: 'idlerDiameter', label: 'Idler diameter', group: 'Idler', help: 'Flat, on the belt’s back.', when: (p) => p.idler === 'outside', step: 1e-3 },
  { as: 'quantity', quantity: 'efficiency', path: 'idlerAlong', label: 'Along the span', group: 'Idler', help: 'From the driving pulley.', when: (p) => p.idler !== 'none', step: 0.05 },
  { as: 'quantity', quantity: 'length', path: 'idlerPush', label: 'Pressed in by', group: 'Idler', help: 'How far the span is moved aside.', when: (p) => p.idler !== 'none', step: 5e-4 },
  { as: 'choice', path: 'made1', label: 'Driving pulley', group: 'Making', help: 'The smallest, most loaded part is worth buying.', options: () => MADE },
  { as: 'choice', path: 'made2', label: 'Driven pulley', group: 'Making', help: 'Large pulleys print well.', options: () => MADE },
  { as: 'quantity', quantity: 'length', path: 'bore1', label: 'Driving bore', group: 'Making', help: 'Shaft diameter.', step: 1e-3 },
  { as: 'quantity', quantity: 'length', path: 'bore2', label: 'Driven bore', group: 'Making', help: 'Shaft or bearing seat.', step: 1e-3 },
  { as: 'quantity', quantity: 'length', path: 'seat1', label: 'Driving seat', group: 'Making', help: 'Diameter of a bearing seat in the pulley; 0 for none.', step: 1e-3 },
  { as: 'quantity', quantity: 'length', path: 'seat2', label: 'Driven seat', group: 'Making', help: 'Diameter of a bearing seat in the pulley; 0 for none.', step: 1e-3 },
  { as: 'choice', path: 'hold1', label: 'Driving hold', group: 'Making', help: 'What carries the torque between pulley and shaft.', options: () => HOLD },
  { as: 'choice', path: 'hold2', label: 'Driven hold', group: 'Making', help: 'What carries the torque between pulley and its neighbour.', options: () => HOLD },
  { as: 'quantity', quantity: 'length', path: 'allowance', label: 'Profile allowance', group: 'Making', help: 'A printed contour is moved in by this; bought pulleys take none.', when: (p) => p.made1 === 'printed' || p.made2 === 'printed', step: 1e-5 },
];
