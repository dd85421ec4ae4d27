import type { Housing } from '../schema/joint.ts';
import type { Shelf } from '../shop/shelf.ts';

/** A housing to begin with: printed, closed, of what a small shop has at hand. */
export function usualHousing(shelf: Shelf): Housing {
  const material = shelf.materials.find((m) => m.id === 'petg') ?? shelf.materials.find((m) => m.made === 'printed')!;
  return {
    by: 'here',
    sides: 'walls',
    material: { ...material },
    wall: 3e-3,
    plate: 5e-3,
    gap: 1e-3,
    screw: 'M3',
    screws: 0,
  };
}
