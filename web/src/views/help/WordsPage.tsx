import { findWords } from '@gristmill/core';
import { useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useTitle } from '../../app/title.ts';

/** What Gristmill calls things and what the field does; one of them picked out where the address names it. */
export default function WordsPage() {
  const [params] = useSearchParams();
  const [text, setText] = useState('');
  const picked = params.get('word');
  const row = useRef<HTMLTableRowElement>(null);
  useTitle('Words');
  useEffect(() => {
    row.current?.scrollIntoView({ block: 'center' });
  }, [picked]);
  const words = findWords(text);
  return (
    <main className="pt-4">
      <div className="flex flex-wrap items-baseline justify-between gap-4 pb-3">
        <h1 className="text-[22px]">Words</h1>
        <label className="label flex items-baseline gap-2">
          find
          <input
            type="search"
            className="field-input w-56"
            value={text}
            maxLength={80}
            onChange={(e) => setText(e.target.value)}
          />
        </label>
      </div>
      {words.length === 0 ? <p className="label">No word and no term of that name.</p> : null}
      <table className="w-full text-[13.5px]" aria-label="Words">
        <thead>
          <tr className="text-left">
            <th scope="col" className="pr-6">
              here
            </th>
            <th scope="col" className="pr-6">
              in the field
            </th>
            <th scope="col">what it is</th>
          </tr>
        </thead>
        <tbody>
          {words.map((w) => (
            <tr
              key={w.id}
              ref={w.id === picked ? row : undefined}
              data-word={w.id}
              aria-current={w.id === picked ? 'true' : undefined}
              className={`rule-b align-top ${w.id === picked ? 'bg-panel' : ''}`}
            >
              <th scope="row" className="w-44 py-1.5 pr-6 text-left font-semibold">
                {w.word}
              </th>
              <td className="w-60 py-1.5 pr-6">{w.standard.join(', ')}</td>
              <td className="py-1.5">
                {w.says}
                {w.source ? <span className="label"> {w.source}</span> : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </main>
  );
}
