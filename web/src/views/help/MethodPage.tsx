import { marked } from 'marked';
import { useEffect, useMemo } from 'react';
import { useLocation } from 'react-router';
import { useTitle } from '../../app/title.ts';
import text from '../../../../docs/method.md?raw';

/** A heading as it stands in an address. */
const anchor = (heading: string): string =>
  heading
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '');

/** How everything is worked out: the document that ships with the sources, with a list of its parts. */
export default function MethodPage() {
  useTitle('Method');
  const { hash } = useLocation();
  const { html, parts } = useMemo(() => {
    const tokens = marked.lexer(text);
    const named = tokens.flatMap((t) => (t.type === 'heading' && t.depth === 2 ? [String(t['text'])] : []));
    const made = marked
      .parser(tokens)
      .replace(/<h2>([^<]*)<\/h2>/g, (_, h: string) => `<h2 id="${anchor(h)}">${h}</h2>`);
    return { html: made, parts: named };
  }, []);
  useEffect(() => {
    if (hash) document.getElementById(decodeURIComponent(hash.slice(1)))?.scrollIntoView();
  }, [hash]);
  return (
    <main className="pt-4">
      <nav aria-label="Parts of the method" className="label pb-2">
        <ul className="flex flex-wrap gap-x-3">
          {parts.map((p) => (
            <li key={p}>
              <a href={`#${anchor(p)}`} className="inline-block py-1 underline underline-offset-3 hover:text-ink">
                {p}
              </a>
            </li>
          ))}
        </ul>
      </nav>
      {/* The document is our own, built in. */}
      <article className="document" dangerouslySetInnerHTML={{ __html: html }} />
    </main>
  );
}
