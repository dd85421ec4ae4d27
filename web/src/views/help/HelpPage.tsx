import { Link, useNavigate } from 'react-router';
import { usePalette } from '../../app/all-actions.ts';
import { useTitle } from '../../app/title.ts';
import { startTour } from '../tour/state.ts';

/** How one begins, where what one makes lives, and where the rest is said. */
export default function HelpPage() {
  useTitle('Help');
  const navigate = useNavigate();
  return (
    <main className="grid max-w-[46rem] gap-4 pt-4 [&_h2]:text-[16px] [&_p]:pt-1">
      <h1 className="text-[22px]">Help</h1>
      <section>
        <h2>Begin</h2>
        <p>
          <em>New joint</em> on the first page asks what the joint must do and lays lines that could do it beside the
          form. Six views in working order then take it further: <em>Brief</em>, <em>Line</em>, <em>Stage</em>,{' '}
          <em>Make</em>, <em>Bench</em>, <em>Review</em>. The row above shows the line from motor to load, the tally at
          the right holds every limit: asked, expected, found.
        </p>
        <p className="flex flex-wrap gap-2 pt-2">
          <button type="button" className="btn" onClick={() => void startTour(navigate)}>
            Go through the demo in seven stops
          </button>
          <button type="button" className="btn" onClick={() => usePalette.getState().set(true)}>
            Find anything by its name
          </button>
        </p>
      </section>
      <section>
        <h2>Any figure, any field</h2>
        <p>
          Press a figure and its working opens: formula, terms, sources, what moves it most. Any unit of its kind can be
          typed into a field: 62 ozf·in, 1/8 in, 0.4 mm @ 180 mm for an angle read at a lever. Arrow keys nudge, Escape
          brings back; in a table Enter goes down, Shift Enter up, Ctrl with an arrow any way. The line between a sheet
          and the fields beside it is dragged, or moved by arrows. What a field is for stands along the bottom of the
          page while you are in it. Every term of the field is found under <Link to="/words">Words</Link>, how
          everything is worked out under <Link to="/help/method">Method</Link>.
        </p>
      </section>
      <section>
        <h2>Where your joints are</h2>
        <p>
          In this browser, on this machine, under the address in its address bar; nothing is sent anywhere. Another
          browser, another profile or another port has a shelf of its own. <em>Everything</em> on the first page exports
          all joints with their earlier saves, recordings, the shop and your preferences to one file, and{' '}
          <em>Import</em> takes it in again anywhere. <Link to="/help/about">About</Link> says how much is stored and
          whether the browser has promised to keep it.
        </p>
      </section>
      <section>
        <h2>Files</h2>
        <p>
          Drop a joint, a shop or a whole export anywhere on the page, a table of readings or a recording on a test. A
          joint that was opened from a file can be saved to the same file, where the browser allows that. Any table can
          be copied, for a spreadsheet or as Markdown: press its <em>Copy</em>, or find it among all actions.
        </p>
      </section>
      <section>
        <h2>Caution</h2>
        <p className="caution mt-1">
          Levers, hung masses, belts, presses and motors hurt people. Figures are estimates and not certification:
          machines that carry people or could fall on them need your local codes and a licensed engineer.
        </p>
      </section>
    </main>
  );
}
