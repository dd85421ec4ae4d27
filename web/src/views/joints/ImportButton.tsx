import { useState } from 'react';
import type { RecentFile } from '../../app/own-files.ts';
import { Menu } from '../../parts/Menu.tsx';

/** Imports files; where the browser remembers which were opened before, these can be picked again. */
export function ImportButton({ onPlain, onFiles }: { onPlain: () => void; onFiles: (files: Iterable<File>) => void }) {
  const [recent, setRecent] = useState<readonly RecentFile[]>([]);
  const own = () => import('../../app/own-files.ts');
  if (!('showOpenFilePicker' in globalThis))
    return (
      <button type="button" className="btn" onClick={onPlain}>
        Import
      </button>
    );
  const again = async (r: RecentFile) => {
    const file = await (await own()).openRecent(r);
    if (file) onFiles([Object.assign(file, { handle: r.handle })]);
  };
  return (
    <Menu
      name="Import"
      className="btn"
      onOpen={() => void own().then(async (m) => setRecent(await m.recentFiles()))}
      entries={[
        { label: 'Choose files…', run: () => void own().then(async (m) => onFiles(await m.chooseFiles())) },
        ...(recent.length ? [{ label: 'opened or saved before' }] : []),
        ...recent.map((r) => ({ label: r.name, run: () => void again(r) })),
      ]}
    />
  );
}
