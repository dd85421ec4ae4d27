import type { NavigateFunction } from 'react-router';
import { toast } from 'sonner';
import { jointPath } from '../../state/address.ts';
import { usePrefs } from '../../state/prefs.ts';
import { foundSets, jointShelf } from '../../storage/shelf.ts';
import { storageProblem } from '../../storage/trouble.ts';
import { STOPS } from './stops.ts';

/** The joint that the tour goes through: a copy, so that the demo stays as it is. */
export const TOUR_JOINT = 'tour-body-yaw';

/** Begins the tour, or takes it up where it was left; its joint is put on the shelf where it is not there. */
export async function startTour(navigate: NavigateFunction): Promise<void> {
  try {
    if (!(await jointShelf.pointer(TOUR_JOINT))) {
      const { demoFound, demoJoints } = await import('../joints/demo.ts');
      const [[joint], [found]] = await Promise.all([demoJoints(), demoFound()]);
      const now = new Date().toISOString();
      await jointShelf.save(
        { ...joint!, id: TOUR_JOINT, name: 'Body yaw, for the tour', created: now, changed: now },
        null,
        'Tour',
      );
      // Lines can always be found anew: where they cannot be kept, nothing is lost.
      await foundSets.keep(TOUR_JOINT, found!).catch(() => undefined);
    }
  } catch (error) {
    const { what, mend } = storageProblem(error);
    toast(`The tour cannot begin. ${what} ${mend}`);
    return;
  }
  const { tourAt, set } = usePrefs.getState();
  const at = typeof tourAt === 'number' && tourAt < STOPS.length ? tourAt : 0;
  set({ tour: at });
  await navigate(jointPath(TOUR_JOINT, STOPS[at]!.view));
}
