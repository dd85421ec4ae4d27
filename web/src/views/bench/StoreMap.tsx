import { channelOf, sensorMap, transmissionRun, unpackRecording, unwrapped, type BenchTest } from '@gristmill/core';
import { format } from 'date-fns';
import { toast } from 'sonner';
import { useShelf } from '../../state/shelf.ts';
import { recordings } from '../../storage/shelf.ts';
import { putOn } from '../../storage/edit-shop.ts';

/** Makes the error curve of a slow turn the map of the output sensor, for when the sensor itself is what errs. */
export function StoreMap({ test }: { test: BenchTest }) {
  const shelf = useShelf();
  const instrument = shelf.instruments.find((i) => i.id === test.rig['instrument'] && i.measures === 'angle');
  if (!instrument || !test.recording) return null;
  const store = async () => {
    const data = (await recordings.data(test.recording!)) ?? undefined;
    const r = unpackRecording({ ...test.recording!, ...(data !== undefined && { data }) });
    const [input, output] = r.ok ? [channelOf(r.value, 'input'), channelOf(r.value, 'output')] : [];
    const run = input && output ? transmissionRun(unwrapped(input).angles, unwrapped(output).angles) : undefined;
    if (!run || run.wholeTurns < 1) {
      toast('A map needs a whole slow turn of the output. Record one, and store it then.');
      return;
    }
    const map = sensorMap(run.angles, run.error);
    putOn('instruments', {
      ...instrument,
      map,
      calibrated: format(new Date(), 'yyyy-MM-dd'),
      source: 'error mapped over one slow turn',
    });
    toast(
      `Stored: ${map.length} harmonics of ${instrument.name}. Its error is taken out of every recording read with it.`,
    );
  };
  return (
    <p className="no-print py-1">
      <button type="button" className="btn" onClick={() => void store()}>
        Store as the sensor’s map
      </button>{' '}
      <span className="label">where the line is known to be true, and the error is the sensor’s own</span>
    </p>
  );
}
