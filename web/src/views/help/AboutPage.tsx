import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useOffline } from '../../app/offline.ts';
import { useTitle } from '../../app/title.ts';
import { usePrefs } from '../../state/prefs.ts';
import { askToKeep, lookAtKeeping, storageUse, useKeeping } from '../../storage/keeping.ts';
import { format } from 'date-fns';

const MEGA = 1e6;

/** What this is, under which terms, what it is made with, and how what is stored here is kept. */
export default function AboutPage() {
  useTitle('About');
  const kept = useKeeping((s) => s.kept);
  const offline = useOffline((s) => s.ready);
  const exportedAt = usePrefs((s) => s.exportedAt);
  const use = useQuery({ queryKey: ['storage-use'], queryFn: async () => (await storageUse()) ?? null, staleTime: 0 });
  const [shown, setShown] = useState(false);
  const notices = useQuery({
    queryKey: ['notices'],
    queryFn: async () => {
      const answer = await fetch('/notices.txt');
      if (!answer.ok || !answer.headers.get('content-type')?.startsWith('text/plain'))
        throw new Error('They come with the built app; they are not there while it is worked on.');
      return answer.text();
    },
    enabled: shown,
  });
  useEffect(() => void lookAtKeeping(), []);
  return (
    <main className="grid max-w-[46rem] gap-4 pt-4 [&_h2]:text-[16px] [&_p]:pt-1">
      <h1 className="text-[22px]">Gristmill {__VERSION__}</h1>
      <section>
        <h2>What is stored here</h2>
        <p>
          {use.data
            ? `${(use.data.used / MEGA).toFixed(1)} MB of ${(use.data.most / MEGA).toFixed(0)} MB that this browser allows are in use. `
            : ''}
          {kept === true
            ? 'The browser has promised to keep it, even when the disk runs short.'
            : kept === false
              ? 'The browser may clear it when the disk runs short: export everything now and then.'
              : 'The browser has not said yet whether it keeps it when the disk runs short.'}
          {exportedAt
            ? ` Everything was last exported on ${format(new Date(exportedAt), 'd MMM yyyy, HH:mm')}.`
            : ' Everything has not been exported from here yet.'}
        </p>
        {kept ? null : (
          <p>
            <button type="button" className="btn" onClick={() => void askToKeep(true)}>
              Ask the browser to keep it
            </button>
          </p>
        )}
        <p>
          {offline
            ? 'The app itself is kept too: it works without its server and without a network. Only the bridge to a rig needs the server.'
            : 'The app has not been kept by this browser yet: it needs its server to be loaded.'}
        </p>
      </section>
      <section>
        <h2>Terms</h2>
        <p>
          Gristmill is free software under the MIT licence, without any warranty. What it is made with is its makers’,
          under their own terms; the kernel of exact bodies is under the LGPL and can be replaced, as its notice says.
        </p>
        <p>
          <button type="button" className="btn" aria-expanded={shown} onClick={() => setShown(!shown)}>
            {shown ? 'Fold the notices' : 'Read the notices of third parties'}
          </button>{' '}
          <a className="mend" href="/notices.txt">
            as a file
          </a>
        </p>
        {shown ? (
          <pre
            tabIndex={0}
            aria-label="Notices of third parties"
            className="num mt-2 max-h-[50vh] overflow-y-auto whitespace-pre-wrap border border-rule p-3 text-[12px]"
          >
            {notices.data ?? (notices.error ? notices.error.message : 'Fetching them…')}
          </pre>
        ) : null}
      </section>
      <section>
        <h2>What it is not</h2>
        <p>
          Its figures are estimates with their bands, not certification. Machines that carry people or could fall on
          them need your local codes and a licensed engineer.
        </p>
      </section>
    </main>
  );
}
