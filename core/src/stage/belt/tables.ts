import { factor, findSection, type Shelf } from '../../shop/shelf.ts';
import type { KindTable } from '../contract.ts';
import { layoutBelt, stockedNear } from './layout.ts';
import type { BeltParams } from './params.ts';

/** Stocked belts near the present centre distance, and the sections with what they carry. */
export function beltTables(p: BeltParams, shelf: Shelf): readonly KindTable[] {
  const section = findSection(shelf, p.section);
  if (!section) return [];
  const made = layoutBelt(p, section);
  const wanted = made.ok ? made.value.centre : p.centre;
  const near = p.closure === 'closed' ? stockedNear(p, section, wanted, 7).sort((a, b) => a.teeth - b.teeth) : [];
  const tables: KindTable[] = [];
  if (near.length) {
    tables.push({
      id: 'stock',
      title: 'Stocked belts near this centre distance',
      columns: [
        { name: 'teeth', quantity: 'count' },
        { name: 'length', quantity: 'length' },
        { name: 'centres', quantity: 'length' },
      ],
      rows: near.map((b) => ({
        cells: [b.teeth, b.teeth * section.pitch, b.centre],
        current: made.ok && made.value.teeth === b.teeth,
        take:
          p.setBy === 'centre'
            ? { path: 'centre', value: b.centre, label: `Centres for ${b.teeth} teeth` }
            : { path: 'beltTeeth', value: b.teeth, label: `Belt with ${b.teeth} teeth` },
      })),
    });
  }
  tables.push({
    id: 'sections',
    title: 'Sections',
    columns: [
      { name: 'section' },
      { name: 'pitch', quantity: 'length' },
      { name: 'allowable', quantity: 'forcePerWidth' },
      { name: 'E·A/w', quantity: 'forcePerWidth' },
      { name: 'least teeth', quantity: 'count' },
    ],
    rows: shelf.sections.map((s) => ({
      cells: [s.id, s.pitch, factor(shelf, s.ids.tension), factor(shelf, s.ids.stiffness), s.minTeeth],
      current: s.id === p.section,
      take: { path: 'section', value: s.id, label: `Section ${s.id}` },
    })),
  });
  return tables;
}
