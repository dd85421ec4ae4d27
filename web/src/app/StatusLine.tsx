import { format } from 'date-fns';
import { useOpen } from '../state/open.ts';
import { saveNow } from '../storage/autosave.ts';
import { usePalette } from './all-actions.ts';

/** Whether the last change is stored. */
export function SaveMark({ onHistory }: { onHistory: () => void }) {
  const { save, savedAt, readOnly } = useOpen();
  if (readOnly) return <span>looking on</span>;
  if (save === 'failed')
    return (
      <button type="button" className="font-semibold text-fail underline" onClick={() => void saveNow()}>
        not saved
      </button>
    );
  const word =
    save === 'saved'
      ? savedAt
        ? `saved ${format(savedAt, 'HH:mm')}`
        : 'saved'
      : save === 'saving'
        ? 'saving…'
        : 'unsaved';
  return (
    <button type="button" data-save={save} className="hover:underline" title="Earlier saves" onClick={onHistory}>
      {word}
    </button>
  );
}

const KEYS: readonly [string[], string][] = [
  [[',', '.'], 'turn the crank'],
  [['space'], 'run'],
  [['[', ']'], 'stage'],
  [['w'], 'working'],
  [['ctrl z'], 'undo'],
];

export function StatusLine({ ms }: { ms: number | undefined }) {
  const { save, savedAt } = useOpen();
  return (
    <footer className="no-print flex h-[24px] shrink-0 items-center gap-5 overflow-hidden whitespace-nowrap border-t border-rule px-3.5 text-[12px] text-muted">
      {KEYS.map(([keys, word]) => (
        <span key={word} className="flex items-center gap-1 max-[1000px]:last-of-type:hidden">
          {keys.map((k) => (
            <kbd key={k} className="num border border-rule px-1 leading-[15px]">
              {k}
            </kbd>
          ))}
          {word}
        </span>
      ))}
      <button
        type="button"
        className="flex items-center gap-1 hover:text-ink"
        onClick={() => usePalette.getState().set(true)}
      >
        <kbd className="num border border-rule px-1 leading-[15px]">ctrl k</kbd> all actions
      </button>
      <span className="ml-auto" data-status="">
        {ms !== undefined ? `worked out in ${ms < 10 ? ms.toFixed(1) : ms.toFixed(0)} ms` : 'working out…'} ·{' '}
        {save === 'saved' && savedAt ? `saved ${format(savedAt, 'HH:mm')}` : save === 'failed' ? 'not saved' : save}
      </span>
    </footer>
  );
}
