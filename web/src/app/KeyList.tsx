import { useEffect, useState } from 'react';
import { usePrefs } from '../state/prefs.ts';
import { isSingle, keyOf, sayKey, spellKey, useAllActions, type Action } from './actions.ts';

/** Keys that only hold others down, and those that move on or leave. */
const NO_KEY = /^(shift|control|alt|meta|altgraph|capslock|tab|escape|enter|dead)$/;

/** One action with its key, which can be given another. */
function KeyRow({ action, all }: { action: Action; all: readonly Action[] }) {
  const { ownKeys, set } = usePrefs();
  const [waiting, setWaiting] = useState(false);
  const [taken, setTaken] = useState('');
  useEffect(() => {
    if (!waiting) return;
    const down = (e: KeyboardEvent) => {
      e.preventDefault();
      e.stopPropagation();
      const key = spellKey(e);
      if (e.key === 'Escape' || e.key === 'Tab') return setWaiting(false);
      const bare = e.key.toLowerCase();
      if (NO_KEY.test(bare)) return;
      const other = all.find((a) => a.id !== action.id && keyOf(a, ownKeys) === key);
      if (other) return setTaken(`${sayKey(key)} belongs to “${other.name}”.`);
      set({ ownKeys: { ...ownKeys, [action.id]: key } });
      setTaken('');
      setWaiting(false);
    };
    window.addEventListener('keydown', down, true);
    return () => window.removeEventListener('keydown', down, true);
  }, [waiting, all, action.id, ownKeys, set]);
  const key = keyOf(action, ownKeys);
  const own = ownKeys[action.id] !== undefined;
  const give = (to: string | undefined) => {
    const { [action.id]: _had, ...rest } = ownKeys;
    set({ ownKeys: to === undefined ? rest : { ...rest, [action.id]: to } });
  };
  return (
    <tr className="rule-b align-baseline">
      <th scope="row" className="py-1 pr-6 text-left font-normal">
        {action.name}
      </th>
      <td className="num w-32 py-1">{key ? <kbd>{sayKey(key)}</kbd> : <span className="label">none</span>}</td>
      <td className="py-1">
        <span className="flex flex-wrap gap-x-3">
          <button type="button" className="mend" onClick={() => (setTaken(''), setWaiting(!waiting))}>
            {waiting ? 'Press a key; Escape leaves it' : 'Change'}
            <span className="sr-only"> the key of {action.name}</span>
          </button>
          {key ? (
            <button type="button" className="mend" onClick={() => give('')}>
              Take away<span className="sr-only"> the key of {action.name}</span>
            </button>
          ) : null}
          {own ? (
            <button type="button" className="mend" onClick={() => give(undefined)}>
              As it was<span className="sr-only">, the key of {action.name}</span>
            </button>
          ) : null}
        </span>
        {taken ? (
          <span role="alert" className="block text-[12px] text-fail">
            {taken}
          </span>
        ) : null}
      </td>
    </tr>
  );
}

/** The keys of what can be done here, in groups; each can be changed, and all single ones turned off. */
export function KeyList() {
  const all = useAllActions();
  const { singleKeys, set } = usePrefs();
  const keyed = all.filter((a) => a.key !== undefined);
  const groups = [...new Set(keyed.map((a) => a.group))];
  return (
    <>
      <label className="flex items-baseline gap-2 pb-2">
        <input
          type="checkbox"
          className="accent-[var(--ink)]"
          checked={singleKeys}
          onChange={(e) => set({ singleKeys: e.target.checked })}
        />
        <span>
          Keys alone do something outside fields
          <span className="label block">
            Turn it off where speech or a slip presses them; keys with Ctrl, and all actions by their names, stay.
          </span>
        </span>
      </label>
      {groups.map((group) => (
        <table key={group} className="w-full text-[13.5px]" aria-label={`Keys, ${group}`}>
          <caption className="label pb-0.5 pt-2 text-left">{group}</caption>
          <tbody>
            {keyed
              .filter((a) => a.group === group)
              .map((a) => (
                <KeyRow key={a.id} action={a} all={all} />
              ))}
          </tbody>
        </table>
      ))}
      {keyed.every((a) => !isSingle(a.key!)) ? <p className="label">A joint that is open has more of them.</p> : null}
    </>
  );
}
