import { useState } from 'react';

/** Asks what a blank joint is called: it is how it is found again. */
export default function BlankStart({ onStart, onCancel }: { onStart: (name: string) => void; onCancel: () => void }) {
  const [name, setName] = useState('');
  const [missing, setMissing] = useState(false);
  const bad = missing && !name.trim();
  return (
    <form
      aria-label="Blank joint"
      className="my-3 flex flex-wrap items-baseline gap-3 border border-strong bg-panel px-4 py-3"
      onSubmit={(e) => {
        e.preventDefault();
        if (!name.trim()) setMissing(true);
        else onStart(name.trim());
      }}
      onKeyDown={(e) => e.key === 'Escape' && onCancel()}
    >
      <label htmlFor="blank-name">What is the joint called?</label>
      {/* The form appears because a person asked for it; its one field is where they go on. */}
      <input
        id="blank-name"
        autoFocus
        className="min-w-[14rem] border-b border-dotted border-muted bg-transparent"
        maxLength={120}
        value={name}
        aria-invalid={bad ? true : undefined}
        aria-describedby={bad ? 'blank-name-why' : undefined}
        onChange={(e) => setName(e.target.value)}
      />
      <button type="submit" className="btn">
        Make it
      </button>
      <button type="button" className="btn-quiet" onClick={onCancel}>
        Never mind
      </button>
      {bad ? (
        <p id="blank-name-why" role="alert" className="w-full text-fail">
          The joint has no name. It is how you find it again. Type one.
        </p>
      ) : null}
    </form>
  );
}
