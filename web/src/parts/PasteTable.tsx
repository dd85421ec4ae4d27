import type { Problem } from '@gristmill/core';
import { useRef, useState } from 'react';
import { ProblemNote } from './ProblemNote.tsx';

const MAX = 2_000_000;

/** A box for pasted rows or a CSV file; what cannot be read stays in it, with the reason. */
export function PasteTable({
  title,
  hint,
  onTake,
  onCancel,
}: {
  title: string;
  hint: string;
  onTake: (text: string) => Problem | undefined;
  onCancel: () => void;
}) {
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<Problem | undefined>();
  const file = useRef<HTMLInputElement>(null);
  const read = async (f: File | undefined) => {
    if (!f) return;
    if (f.size > MAX)
      return setProblem({
        what: `“${f.name.slice(0, 60)}” is too large.`,
        why: `Tables stay under ${MAX / 1e6} MB.`,
        mend: 'Thin it out first.',
      });
    try {
      setText(await f.text());
      setProblem(undefined);
    } catch {
      setProblem({
        what: `“${f.name.slice(0, 60)}” cannot be read.`,
        why: 'The browser was refused access, or it was moved.',
        mend: 'Choose it again.',
      });
    }
  };
  return (
    <section aria-label={title} className="my-1.5 border border-strong bg-panel p-2.5">
      <p className="font-semibold">{title}</p>
      <p className="label">{hint}</p>
      <textarea
        aria-label={title}
        rows={5}
        className="num my-1 w-full border border-rule bg-paper p-1 text-[12px]"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      {problem ? <ProblemNote problem={problem} /> : null}
      <p className="flex gap-2 pt-1">
        <button type="button" className="btn" onClick={() => setProblem(onTake(text))}>
          Take these
        </button>
        <button type="button" className="btn" onClick={() => file.current?.click()}>
          Read a CSV file
        </button>
        <button type="button" className="btn-quiet" onClick={onCancel}>
          Cancel
        </button>
        <input
          ref={file}
          type="file"
          accept=".csv,.txt,text/csv,text/plain"
          className="sr-only"
          tabIndex={-1}
          aria-label={`${title}: file`}
          onChange={(e) => void read(e.target.files?.[0])}
        />
      </p>
    </section>
  );
}
