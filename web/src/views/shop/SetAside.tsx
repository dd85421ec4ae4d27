import { useEffect, useState } from 'react';
import { download } from '../../app/download.ts';
import { rawText } from '../../storage/raw-text.ts';
import { shopStore } from '../../storage/shelf.ts';

/** Changes to the shop that could not be read: set aside as they lay, to be exported or let go. */
export function SetAside() {
  const [damaged, setDamaged] = useState<readonly { key: string; raw: unknown }[]>([]);
  useEffect(() => void shopStore.damaged().then(setDamaged, () => undefined), []);
  return damaged.map(({ key, raw }) => (
    <p
      key={key}
      role="note"
      className="mb-2 flex flex-wrap items-baseline gap-3 border-l-3 border-near bg-panel px-3 py-1.5"
      data-set-aside=""
    >
      <span>
        Some of your changes could not be read on {key.slice(8, 18)} and are set aside, whole, as they lay. What could
        be read stands.
      </span>
      <button
        type="button"
        className="mend"
        onClick={() => download(`shop-${key.slice(8, 18)}-raw.json`, rawText(raw), 'application/json')}
      >
        Export it raw
      </button>
      <button
        type="button"
        className="mend"
        onClick={() =>
          void shopStore.forget(key).then(
            () => setDamaged((all) => all.filter((d) => d.key !== key)),
            () => undefined,
          )
        }
      >
        Let it go
      </button>
    </p>
  ));
}
