import { useQueryClient } from '@tanstack/react-query';
import { sayProblem } from '@gristmill/core';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { said } from '../state/prefs.ts';
import { bringOne } from './bring-files.ts';
import { useDropTaker } from './drop-taker.ts';
import { holdsFiles, takeEarlyDrops } from './early-drops.ts';
import { rememberFile } from './own-files.ts';

/** Takes files that are dropped anywhere on the window, and says so while they hover. */
export function DropAnywhere() {
  const client = useQueryClient();
  const [over, setOver] = useState(false);
  const [busy, setBusy] = useState('');
  const taker = useDropTaker((s) => s.taker);
  useEffect(() => {
    const hover = (e: DragEvent) => {
      if (!holdsFiles(e)) return;
      e.preventDefault();
      setOver(true);
    };
    const leave = (e: DragEvent) => e.relatedTarget === null && setOver(false);
    const drop = (e: DragEvent) => {
      if (!holdsFiles(e)) return;
      e.preventDefault();
      setOver(false);
      // Handles must be asked for before anything is awaited.
      const items = [...(e.dataTransfer?.items ?? [])].filter((i) => i.kind === 'file');
      const handles = items.map((i) =>
        'getAsFileSystemHandle' in i
          ? (i as unknown as { getAsFileSystemHandle(): Promise<unknown> }).getAsFileSystemHandle().catch(() => null)
          : Promise.resolve(null),
      );
      const files = [...(e.dataTransfer?.files ?? [])];
      void takeAll(files, handles);
    };
    const takeAll = async (files: readonly File[], handles: readonly Promise<unknown>[]) => {
      for (const [i, file] of files.entries()) {
        const taken = await bringOne(file, setBusy);
        if ('problem' in taken) toast(said(sayProblem(taken.problem)), { duration: 12_000 });
        else await rememberFile(taken.joints, file, await handles[i]);
      }
      await client.invalidateQueries({ queryKey: ['joints'] });
    };
    const early = takeEarlyDrops();
    if (early.length) void takeAll(early, []);
    window.addEventListener('dragover', hover);
    window.addEventListener('dragleave', leave);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('dragover', hover);
      window.removeEventListener('dragleave', leave);
      window.removeEventListener('drop', drop);
    };
  }, [client]);
  if (!over && !busy) return null;
  return (
    <p
      role="status"
      className="pointer-events-none fixed inset-x-0 top-0 z-40 border-b border-ink bg-serious px-4 py-2 text-center"
    >
      {busy ||
        `Drop it: joints and exports go onto the shelf, a shop file into the shop${taker ? `, readings and recordings into “${taker.name}”` : ''}.`}
    </p>
  );
}
