import { formatQuantity, type LadderTest, type PlayTest } from '@gristmill/core';
import { useUnits } from '../../state/prefs.ts';

/** What to rig, with the dimensions that matter. */
export function RigSketch({ test }: { test: PlayTest | LadderTest }) {
  const units = useUnits();
  const say = (v: number, q: Parameters<typeof formatQuantity>[1]) => formatQuantity(v, q, units, 4);
  const tilt = test.kind === 'torque-ladder' ? Math.max(-0.6, Math.min(0.6, test.rig.angle)) : 0;
  const [cx, cy, length] = [36, 62, 140];
  const end: [number, number] = [cx + length * Math.cos(tilt), cy - length * Math.sin(tilt)];
  const text = {
    fontSize: 11.5,
    fill: 'var(--ink)',
    className: 'num',
    stroke: 'var(--paper)',
    strokeWidth: 4,
    paintOrder: 'stroke' as const,
  };
  return (
    <svg
      viewBox="0 0 218 158"
      role="img"
      aria-label={
        test.kind === 'play-lever'
          ? 'Lever on the output, pushed both ways, read at its end'
          : 'Lever on the output with a basket hung at its end'
      }
      className="mb-2 block w-full"
    >
      <path d={`M${cx - 30} ${cy + 34}h60`} stroke="var(--ink)" strokeWidth="1.2" />
      <path
        d={`M${cx - 18} ${cy + 34}V${cy - 26}h36V${cy + 34}`}
        fill="var(--part)"
        stroke="var(--ink)"
        strokeWidth="1.2"
      />
      <path d={`M${cx} ${cy}L${end[0]} ${end[1]}`} stroke="var(--ink)" strokeWidth="9" strokeLinecap="round" />
      <path d={`M${cx} ${cy}L${end[0]} ${end[1]}`} stroke="var(--panel)" strokeWidth="6" strokeLinecap="round" />
      <circle cx={cx} cy={cy} r="9" fill="var(--panel)" stroke="var(--ink)" strokeWidth="1.4" />
      <circle cx={cx} cy={cy} r="1.8" fill="var(--ink)" />
      {test.kind === 'play-lever' ? (
        <>
          <path
            d={`M${end[0] - 6} ${cy - 34}v26m-4 -8l4 8l4 -8M${end[0] - 6} ${cy + 34}v-26m-4 8l4 -8l4 8`}
            fill="none"
            stroke="var(--found)"
            strokeWidth="1.6"
          />
          <path
            d={`M${end[0] + 10} ${cy - 12}h14M${end[0] + 10} ${cy + 12}h14M${end[0] + 17} ${cy - 12}v24`}
            stroke="var(--ink)"
            strokeWidth="0.8"
          />
          <text x={end[0] + 28} y={cy + 4} {...text}>
            d
          </text>
          <text x={end[0] + 20} y={cy - 42} fontSize="11.5" textAnchor="end" fill="var(--found)">
            push lightly both ways
          </text>
        </>
      ) : (
        <>
          <path d={`M${end[0]} ${end[1] + 4}v26`} stroke="var(--ink)" />
          <path
            d={`M${end[0] - 18} ${end[1] + 30}h36l-5 24h-26Z`}
            fill="var(--part)"
            stroke="var(--ink)"
            strokeWidth="1.2"
          />
          <text x={end[0] - 22} y={end[1] + 50} textAnchor="end" {...text}>
            {say(test.rig.basket, 'mass')} +
          </text>
          <path
            d={
              `M${cx + length * Math.min(1, test.rig.leverCentre / test.rig.lever) * Math.cos(tilt)} ` +
              `${cy - length * Math.min(1, test.rig.leverCentre / test.rig.lever) * Math.sin(tilt)}v30`
            }
            stroke="var(--found)"
            strokeWidth="1.6"
          />
          <text
            x={cx + length * Math.min(1, test.rig.leverCentre / test.rig.lever) * Math.cos(tilt) - 5}
            y={cy - length * Math.min(1, test.rig.leverCentre / test.rig.lever) * Math.sin(tilt) + 24}
            textAnchor="end"
            {...text}
            fill="var(--found)"
          >
            {say(test.rig.leverMass, 'mass')}
          </text>
        </>
      )}
      <g stroke="var(--ink)" strokeWidth="0.7">
        <path
          d={`M${cx} ${cy + 12}V138M${end[0]} ${test.kind === 'play-lever' ? cy + 12 : end[1] + 58}V138`}
          opacity="0.45"
        />
        <path d={`M${cx} 134H${end[0]}`} />
      </g>
      <path d={`M${cx} 134l7 -2.5v5ZM${end[0]} 134l-7 -2.5v5Z`} fill="var(--ink)" />
      <text x={(cx + end[0]) / 2} y="130" textAnchor="middle" {...text}>
        L {say(test.rig.lever, 'length')} ± {say(test.rig.leverError, 'length')}
      </text>
      <text x={cx - 30} y={153} fontSize="11.5" fill="var(--muted)">
        {test.kind === 'play-lever' ? 'input held' : 'motor at its limit, or held'}
      </text>
    </svg>
  );
}
