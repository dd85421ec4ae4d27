import { formatQuantity, stageKind, type Joint, type LineReport, type Variant } from '@gristmill/core';
import { NavLink, useParams } from 'react-router';
import { slug } from '../state/address.ts';
import { useUnits } from '../state/prefs.ts';
import { useWritten } from '../state/straight.tsx';
import { Glyph } from './Glyph.tsx';

function MotorGlyph({ frame, length }: { frame: number; length: number }) {
  const h = 34;
  const w = Math.max(20, Math.min(54, (h * length) / frame));
  return (
    <svg
      width={w + 16}
      height={h + 4}
      viewBox={`0 0 ${w + 16} ${h + 4}`}
      aria-hidden="true"
      fill="var(--part)"
      stroke="var(--ink)"
      strokeWidth="1.2"
    >
      <rect x="1" y="2" width={w} height={h} />
      <path d={`M1 ${2 + h * 0.22}h${w}M1 ${2 + h * 0.78}h${w}`} stroke="var(--muted)" strokeWidth="0.8" />
      <rect x={w + 1} y={h / 2 - 1} width="13" height="6" fill="var(--panel)" />
    </svg>
  );
}

function OutputGlyph() {
  return (
    <svg
      width="76"
      height="38"
      viewBox="0 0 76 38"
      aria-hidden="true"
      stroke="var(--ink)"
      fill="var(--panel)"
      strokeWidth="1.2"
    >
      <circle cx="9" cy="19" r="7" />
      <path d="M16 19h38" strokeWidth="4" />
      <rect x="54" y="8" width="20" height="22" fill="var(--part)" />
    </svg>
  );
}

/** The drive line from motor to load: true glyphs, what has accumulated under each node, and the way between stages. */
export function Strip({ joint, variant, report }: { joint: Joint; variant: Variant; report: LineReport | undefined }) {
  const units = useUnits();
  const atOutput = useWritten();
  const { stage } = useParams();
  const nodes = report?.nodes ?? [];
  const say = (i: number) => {
    const n = nodes[i];
    if (!n) return '';
    // Only the output may run straight.
    const write: typeof atOutput =
      i === variant.stages.length ? atOutput : (v, quantity, digits) => formatQuantity(v, quantity, units, digits);
    return [
      write(n.torque, 'torque', 3),
      write(n.speed, 'speed', 3),
      ...(i > 0 ? [write(n.play, 'smallAngle', 2)] : []),
    ].join(' · ');
  };
  const weakest = report?.limitedBy.match(/stage (\d+)/)?.[1];
  const base = `/joint/${slug(joint.id)}`;
  const needs = report?.verdicts.find((v) => v.id === 'torque');
  return (
    <nav aria-label="Drive line" className="relative flex h-full min-w-0 items-stretch overflow-x-auto">
      <div
        aria-hidden="true"
        className="pointer-events-none absolute inset-x-6 top-[42px] border-t border-dashed border-muted/60"
      />
      <ol className="relative flex min-w-full items-stretch justify-between gap-2 px-4">
        <li className="flex">
          <NavLink to={`${base}/line`} className="flex flex-col justify-between px-2 py-1.5" title={variant.motor.name}>
            <span className="flex h-[72px] items-center gap-2">
              <span className="bg-panel">
                <MotorGlyph frame={variant.motor.frame} length={variant.motor.length} />
              </span>
            </span>
            <span className="text-[12px] leading-tight">
              <b>Motor</b> <span className="num ml-1 text-muted">{say(0)}</span>
            </span>
          </NavLink>
        </li>
        {variant.stages.map((s, j) => {
          const trouble = report?.stages[j]?.problem;
          const open = stage === String(j + 1);
          const kind = stageKind(s.kind);
          const number = report?.stages[j]?.report?.numbers;
          const weak = weakest === String(j + 1) && needs && needs.state !== 'holds';
          return (
            <li key={s.id} className="flex">
              <NavLink
                to={`${base}/stage/${j + 1}`}
                aria-current={open ? 'step' : undefined}
                className={`flex flex-col justify-between px-2 py-1.5 outline-offset-[-3px] ${open ? 'bg-paper outline-[1.5px] outline-ink' : ''}`}
              >
                <span className="flex h-[72px] items-center gap-2.5">
                  <span className={open ? 'bg-paper' : 'bg-panel'}>
                    <Glyph stage={s} width={98} height={62} />
                  </span>
                  <span className={`flex flex-col px-0.5 text-[12px] leading-[1.35] ${open ? 'bg-paper' : 'bg-panel'}`}>
                    <b>
                      {j + 1} {kind?.name ?? s.kind}
                    </b>
                    {trouble ? (
                      <span className="text-fail">✕ cannot be</span>
                    ) : (
                      <span className="num text-muted">
                        {number ? formatQuantity(number.ratio, 'ratio', units, 3) : ''}
                      </span>
                    )}
                    <span className={weak ? 'text-fail' : 'num text-muted'}>
                      {weak ? '✕ weakest' : number ? `η ${number.etaForward.toFixed(2)}` : ''}
                    </span>
                  </span>
                </span>
                <span className="num text-[12px] text-muted">{say(j + 1)}</span>
              </NavLink>
            </li>
          );
        })}
        {variant.stages.length === 0 ? (
          <li className="flex items-center bg-panel px-3">
            <NavLink to={`${base}/line`} className="mend">
              No stages yet. Add the first
            </NavLink>
          </li>
        ) : null}
        <li className="flex">
          <NavLink to={`${base}/brief`} className="flex flex-col justify-between px-2 py-1.5">
            <span className="flex h-[72px] items-center">
              <span className="bg-panel">
                <OutputGlyph />
              </span>
            </span>
            <span className="text-[12px] leading-tight">
              <b>Output</b>{' '}
              <span className="num ml-1 text-muted">
                needs {needs && Number.isFinite(needs.asked) ? atOutput(needs.asked, 'torque', 3) : ''}
              </span>
            </span>
          </NavLink>
        </li>
      </ol>
    </nav>
  );
}
