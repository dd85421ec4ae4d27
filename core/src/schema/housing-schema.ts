import * as v from 'valibot';
import { quantity, wholeNumber } from './quantity-schema.ts';

export const SCREW_IDS = ['M2', 'M2.5', 'M3', 'M4', 'M5', 'M6', 'M8'] as const;
export type ScrewId = (typeof SCREW_IDS)[number];

/** The face that a motor is screwed on by, where its drawing says otherwise than its frame. */
export const faceSchema = v.looseObject({
  pilot: v.pipe(quantity('length', 0, 0.5), v.description('Diameter of the pilot that centres it, m; 0 for none')),
  screws: v.pipe(wholeNumber(2, 12), v.description('Tapped holes in its face')),
  circle: v.pipe(quantity('length', 2e-3, 0.5), v.description('Circle of these holes, m')),
  deep: v.pipe(quantity('length', 1e-3, 0.1), v.description('Depth of their thread, m')),
  thread: v.pipe(v.picklist(SCREW_IDS, 'must be a metric thread from M2 to M8'), v.description('Their thread')),
  shaft: v.pipe(quantity('length', 5e-4, 0.2), v.description('Diameter of its shaft, m')),
  reach: v.pipe(quantity('length', 1e-3, 0.5), v.description('How far the shaft stands out of the face, m')),
});

/** What a housing is mounted by. */
export const earsSchema = v.looseObject({
  on: v.pipe(
    v.picklist(['cover', 'first'], 'must be cover or first'),
    v.description('Plate that has them: the cover, or the first one, which is the motor’s'),
  ),
  count: v.pipe(wholeNumber(2, 12), v.description('How many')),
  screw: v.pipe(
    v.picklist(SCREW_IDS, 'must be a metric thread from M2 to M8'),
    v.description('Thread of the screws that go through them'),
  ),
});

/**
 * What the stages stand in.
 *
 * @param material schema of a material as a joint keeps it
 */
export const housingSchema = <M extends v.GenericSchema>(material: M) =>
  v.looseObject({
    by: v.pipe(
      v.picklist(['here', 'own'], 'must be here or own'),
      v.description('Made here of plates, walls and screws, or the maker’s own: only the room it must leave is given'),
    ),
    sides: v.pipe(
      v.picklist(['walls', 'posts'], 'must be walls or posts'),
      v.description('Closed by walls, or plates on posts, open to see'),
    ),
    material,
    wall: v.pipe(quantity('length', 8e-4, 0.05), v.description('Thickness of walls, m')),
    plate: v.pipe(
      quantity('length', 1e-3, 0.05),
      v.description('Thickness of plates, m; more where a bearing is wider'),
    ),
    gap: v.pipe(
      quantity('length', 2e-4, 0.05),
      v.description('Room between what moves and what stands still, across and along, m'),
    ),
    screw: v.pipe(
      v.picklist(SCREW_IDS, 'must be a metric thread from M2 to M8'),
      v.description('Thread that holds the plates together'),
    ),
    screws: v.pipe(wholeNumber(0, 24), v.description('How many; 0 for as many as the outline asks for')),
    stands: v.pipe(
      v.optional(quantity('length', 0, 0.2)),
      v.description('How far its rods stand out of the cover’s nuts, to be mounted by, m; not at all where left out'),
    ),
    ears: v.pipe(
      v.optional(earsSchema),
      v.description('Ears of one of its plates that it is screwed on by; none where left out'),
    ),
    face: v.pipe(v.optional(faceSchema), v.description('The motor’s face, where it is not its frame’s')),
  });
