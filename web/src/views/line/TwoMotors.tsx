import { atOutput, type Figure } from '@gristmill/core';
import { useState, type ReactNode } from 'react';
import { FigureText } from '../../parts/FigureText.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { LimitName, Straight } from '../../state/straight.tsx';
import { useTwoMotors } from '../../workers/queries.ts';
import { CheckLine } from './LineChecks.tsx';

/** What is told at the output is told along a straight axis where the brief is of one. */
const Told = ({ of, children }: { of: string; children: ReactNode }) =>
  atOutput(of) ? <Straight>{children}</Straight> : children;

function Row({ figure }: { figure: Figure }) {
  return (
    <tr className="rule-b" data-pair={figure.id}>
      <th className="text-left font-normal">
        <Told of={figure.id}>
          <LimitName kind={figure} />
        </Told>
      </th>
      <td className="pr-0 text-right">
        <Told of={figure.id}>
          <FigureText figure={figure} />
        </Told>
      </td>
    </tr>
  );
}

/** Two motors on one output, turned against one another: what load stays without play, and what that costs. */
export function TwoMotors() {
  const [asked, setAsked] = useState<number | undefined>();
  const { data } = useTwoMotors(asked);
  return (
    <section aria-label="Two motors on one output" className="pt-3">
      <h2 className="rule-b pb-0.5">Two motors on one output</h2>
      <p className="label py-1">
        Each through a line like this one, their torques offset against one another, so that no flank lifts.
      </p>
      {data?.ok ? (
        <>
          <div className="max-w-[250px]">
            <QuantityField
              label="Offset of each"
              quantity="torque"
              step={Number((data.value.offset / 20).toPrecision(1))}
              min={1e-6}
              max={1e4}
              value={asked ?? data.value.offset}
              help="Torque by which each motor pushes against the other (preload, torque bias, anti-backlash)."
              onChange={(v) => setAsked(v)}
            />
          </div>
          <table className="mt-1 w-full text-[12.5px]">
            <tbody>
              {data.value.figures.map((f) => (
                <Row key={f.id} figure={f} />
              ))}
            </tbody>
          </table>
          <ul aria-label="What decides about the pair" className="pt-1">
            {data.value.checks
              .filter((c) => c.state !== 'holds')
              .map((c) => (
                <CheckLine
                  key={c.id}
                  c={c}
                  figure={data.value.figures.find((f) => f.id === c.of)}
                  onMend={(mend) => setAsked(mend.value as number)}
                />
              ))}
          </ul>
        </>
      ) : data ? (
        <>
          <ProblemNote problem={data.problem} />
          {asked === undefined ? null : (
            <button type="button" className="mend" onClick={() => setAsked(undefined)}>
              Take what holds the peak
            </button>
          )}
        </>
      ) : (
        <p className="label">working it out…</p>
      )}
    </section>
  );
}
