import { formatQuantity, PROCESS_STARTS, type Process } from '@gristmill/core';
import { entryFromTest } from '@gristmill/core/fit/from-test';
import { slicerNumbers } from '@gristmill/core/fit/pair-fit';
import { fitHistory } from '@gristmill/core/fit/process-fit';
import { PURPOSES, purposeWindow, type Purpose } from '@gristmill/core/fit/purposes';
import { fitMarkdown } from '@gristmill/core/fit/write-fit';
import { useState } from 'react';
import { Link } from 'react-router';
import { download, fileName } from '../../../app/download.ts';
import { ChoiceField } from '../../../parts/ChoiceField.tsx';
import { FitNumbers } from '../../../parts/FitNumbers.tsx';
import { ProblemNote } from '../../../parts/ProblemNote.tsx';
import { QuantityField } from '../../../parts/QuantityField.tsx';
import { Said } from '../../../parts/Said.tsx';
import { Section } from '../../../parts/Section.tsx';
import { slug } from '../../../state/address.ts';
import { kindOf, today } from '../../../state/bench.ts';
import { useJoint, useOpen, useVariant } from '../../../state/open.ts';
import { usePrefs, useUnits } from '../../../state/prefs.ts';
import { useShelf } from '../../../state/shelf.ts';
import { useShop } from '../../../state/shop.ts';
import { useFitSheet } from '../../../workers/fits.ts';
import { Attempts } from './Attempts.tsx';
import { Jam } from './Jam.tsx';
import { knowsMore, makeBy, takeProcess, teach } from './keep.ts';
import { Lens } from './Lens.tsx';
import { MadeParts } from './MadeParts.tsx';
import { Pairs } from './Pairs.tsx';
import { Panes } from '../../../parts/Panes.tsx';

/** What is done about the first layers, with its figures: both schools. */
function Foot({ process }: { process: Process }) {
  const units = useUnits();
  const made = fitHistory(process, today());
  if (!made.ok || !PROCESS_STARTS[process.type].prints) return null;
  const { foot, footHigh } = made.value.now;
  const mm = (x: number) => formatQuantity(Math.max(0, Math.round(x * 1e5) / 1e5), 'length', units, 2);
  const says = {
    chamfer: `It is drawn ${mm(foot.value)} narrower at the bed, less and less up to ${mm(footHigh.value)}: no clean-up, a weaker edge there.`,
    raft: 'A raft keeps the foot off the part: true down to the first layer, a rough underside, and some ten minutes and grams more.',
    none: `Nothing is done: ${mm(foot.value)} stands out at the bed over ${mm(footHigh.value)}. Scrape it off before anything is measured or put in.`,
  };
  return <p className="text-[12.5px]">Foot. {says[process.foot]}</p>;
}

/** What is typed into the slicer where it corrects, and what must be at 0 where the outline does. */
function WhoCorrects({ process }: { process: Process }) {
  const units = useUnits();
  const made = fitHistory(process, today());
  if (!made.ok) return null;
  const n = slicerNumbers({ process, fit: made.value.now });
  const mm = (x: number) => formatQuantity(Math.round(x * 1e6) / 1e6, 'length', units, 3);
  if (process.compensates === 'none')
    return (
      <p className="text-found">
        Nothing corrects its sizes: parts come out fat and holes small, and the chances say so.
      </p>
    );
  if (process.compensates === 'outline')
    return (
      <p>
        The files correct: outsides {mm(-made.value.now.out.value)}, holes {mm(made.value.now.into.value)} a side, scale{' '}
        {(100 * n.scale).toFixed(2)} %. In the slicer contour, hole and scale settings stay at <b>0, 0 and 100 %</b>.
      </p>
    );
  return (
    <p>
      The slicer corrects; files are as drawn. Type: contour <b className="num">{mm(n.outer)}</b>, holes{' '}
      <b className="num">{mm(n.holes)}</b>, scale <b className="num">{(100 * n.scale).toFixed(2)} %</b>
      {PROCESS_STARTS[process.type].prints && process.foot !== 'chamfer' ? (
        <>
          , first layer <b className="num">{mm(-n.foot)}</b>
        </>
      ) : null}
      . Where it has one setting for both, type the contour’s and let holes be drawn otherwise.
    </p>
  );
}

/** What to draw for a fit of any diameter: for what is not in the line. */
function AnyFit({ process }: { process: Process }) {
  const units = useUnits();
  const [purpose, setPurpose] = useState<Purpose>('press');
  const [d, setD] = useState(6e-3);
  const made = fitHistory(process, today());
  if (!made.ok) return null;
  const fit = made.value.now;
  const [low, high] = purposeWindow(purpose, d);
  const left = process.compensates === 'none' ? 2 * fit.into.value : 0;
  const mm = (x: number) => formatQuantity(Math.round(x * 1e6) / 1e6, 'length', units, 6);
  const u = 1.96 * Math.hypot(2 * fit.into.u, fit.spread.value);
  return (
    <>
      <ChoiceField
        label="For"
        value={purpose}
        options={(Object.keys(PURPOSES) as Purpose[]).map((p) => ({ value: p, label: PURPOSES[p].name }))}
        onChange={(v) => setPurpose(v as Purpose)}
      />
      <QuantityField
        label="What goes in is ⌀"
        quantity="length"
        value={d}
        min={5e-4}
        max={0.5}
        step={1e-3}
        onChange={setD}
      />
      <p>
        Draw the hole <b className="num">⌀ {mm(d + (low + high) / 2 + left)}</b>; it comes out within ±{' '}
        {formatQuantity(u, 'length', { length: 'µm', ...units }, 2)} of ⌀ {mm(d + (low + high) / 2)}.
      </p>
    </>
  );
}

/** Make it fit: by which process, what each pair comes to, how likely it jams, how each part is made, what it took. */
export default function FitView() {
  const joint = useJoint();
  const variant = useVariant();
  const shelf = useShelf();
  const shop = useShop((s) => s.shelf.processes);
  const readOnly = useOpen((s) => s.readOnly);
  const fitted = usePrefs((s) => s.drawFits);
  const setPrefs = usePrefs((s) => s.set);
  const { sheet } = useFitSheet(fitted);
  const process = shelf.processes.find((p) => p.id === variant.making?.process);
  const made = process && fitHistory(process, today());
  const units = useUnits();
  const [chosen, setChosen] = useState<string | undefined>();
  const builds = joint.builds.filter((b) => b.variantId === variant.id);
  const build = builds.find((b) => b.id === chosen) ?? builds.at(-1);
  // Tests of made sizes that no process has taken over yet.
  const untold = joint.tests.filter(
    (t) =>
      kindOf(t.kind)?.teachesProcess &&
      builds.some((b) => b.id === t.buildId) &&
      process &&
      !process.fits.some((e) => e.id === entryFromTest(t).id) &&
      entryFromTest(t).readings.length > 0,
  );
  const shopAt = `/joint/${slug(joint.id)}/shop?shelf=processes`;
  return (
    <Panes
      id="fit"
      name="what is made by which process"
      width={300}
      plain="one-column grid h-full min-h-0 grid-cols-1"
      pane={
        <div
          className="relative min-h-0 overflow-y-auto  bg-panel px-3 pt-3 pb-4"
          tabIndex={0}
          role="region"
          aria-label="Process and lens"
        >
          <Section title="Process">
            <ChoiceField
              label="Made by"
              value={process?.id ?? ''}
              disabled={readOnly}
              options={[
                ...(process ? [] : [{ value: '', label: 'not chosen' }]),
                ...shop.map((p) => ({ value: p.id, label: p.name })),
                ...shelf.processes
                  .filter((p) => !shop.some((s) => s.id === p.id))
                  .map((p) => ({ value: p.id, label: p.name })),
              ]}
              help="Every printed part; what is milled or cut is chosen part by part."
              onChange={(v) =>
                makeBy(
                  'Made by',
                  (d) => {
                    d.making = { ...d.making, process: String(v) };
                  },
                  String(v),
                )
              }
            />
            {process ? (
              <>
                {knowsMore(joint, shop, process.id) ? (
                  <p className="text-found">
                    The shop knows it otherwise by now.{' '}
                    <button type="button" className="mend" disabled={readOnly} onClick={() => takeProcess(process.id)}>
                      Take it over
                    </button>
                  </p>
                ) : null}
                {made?.ok ? (
                  <>
                    <FitNumbers fit={made.value.now} printed={PROCESS_STARTS[process.type].prints} />
                    {made.value.notes.map((n) => (
                      <p key={n} className="text-[12.5px] text-found">
                        <Said>{n}</Said>
                      </p>
                    ))}
                  </>
                ) : made ? (
                  <ProblemNote problem={made.problem} />
                ) : null}
                <WhoCorrects process={process} />
                <Foot process={process} />
              </>
            ) : (
              <p className="label">
                Say by which printer, nozzle and plastic it is made: files are then drawn for it, and chances are those
                of your machine.
              </p>
            )}
            {untold.map((t) => (
              <p key={t.id} className="text-[12.5px]">
                A test of made sizes of {t.date.slice(0, 10)} is not taken over yet.{' '}
                <button
                  type="button"
                  className="mend"
                  disabled={readOnly}
                  onClick={() =>
                    teach(
                      process!,
                      entryFromTest(t),
                      `${process!.name} has taken over the test of ${t.date.slice(0, 10)}.`,
                    )
                  }
                >
                  Take it over
                </button>
              </p>
            ))}
            <Link className="mend" to={process ? `${shopAt}&process=${encodeURIComponent(process.id)}` : shopAt}>
              Measure a coupon
            </Link>
          </Section>
          {process && sheet?.ok ? (
            <Section title="Over one another" aside="drag to move">
              <Lens sheet={sheet.value} />
            </Section>
          ) : null}
          {process ? (
            <Section title="Any fit">
              <AnyFit process={process} />
            </Section>
          ) : null}
        </div>
      }
    >
      <div
        className="relative min-h-0 min-w-0 overflow-y-auto px-5 pt-3"
        tabIndex={0}
        role="region"
        aria-label="Make it fit"
      >
        <div className="flex items-baseline justify-between gap-2 pb-2">
          <h1 className="text-[15px]">
            Make it fit <span className="label font-normal">variant {variant.name}, as its process makes it</span>
          </h1>
          {sheet?.ok ? (
            <button
              type="button"
              className="mend"
              onClick={() =>
                download(
                  `${fileName(joint.name, variant.name, 'fit')}.md`,
                  fitMarkdown(sheet.value, shelf.processes, `${joint.name}, variant ${variant.name}`, today(), units),
                  'text/markdown',
                )
              }
            >
              As a sheet
            </button>
          ) : null}
        </div>
        <Jam />
        {sheet && !sheet.ok ? <ProblemNote problem={sheet.problem} /> : null}
        {sheet?.ok ? (
          <>
            {sheet.value.apart ? <ProblemNote problem={sheet.value.apart} /> : null}
            <Pairs sheet={sheet.value} fitted={fitted} onFitted={(drawFits) => setPrefs({ drawFits })} />
            {build ? (
              <Attempts
                key={build.id}
                build={build}
                builds={builds}
                onBuild={setChosen}
                sheet={sheet.value}
                processes={shelf.processes}
              />
            ) : null}
            <MadeParts sheet={sheet.value} processes={shelf.processes} />
            <p className="caution my-3">
              Press, do not hammer; support the inner ring of a bearing. Eye protection for reaming and filing, a mask
              for dust of fibres, gloves and fresh air for resin and glue. Local rules come first.
            </p>
          </>
        ) : sheet ? null : (
          <p className="label" role="status">
            Looking for what goes into what…
          </p>
        )}
      </div>
    </Panes>
  );
}
