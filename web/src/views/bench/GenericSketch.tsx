import { formatQuantity, type ReadingsTest, type TestKind } from '@gristmill/core';
import { useUnits } from '../../state/prefs.ts';

const ink = { fill: 'none', stroke: 'var(--ink)', strokeWidth: 1.2 };
const thin = { fill: 'none', stroke: 'var(--ink)', strokeWidth: 0.7 };
const hot = { fill: 'none', stroke: 'var(--found)', strokeWidth: 1.6 };

/** The joint on the bench: a housing on its foot with the output's end. */
const House = ({ x = 28 }: { x?: number }) => (
  <>
    <path d={`M${x - 14} 110h60`} {...ink} />
    <path d={`M${x - 8} 110V50h36V110`} {...ink} fill="var(--part)" />
    <circle cx={x + 10} cy={72} r="10" {...ink} fill="var(--panel)" />
    <circle cx={x + 10} cy={72} r="1.8" fill="var(--ink)" />
  </>
);

const Arm = ({ long = 130 }: { long?: number }) => (
  <path d={`M38 72h${long}`} stroke="var(--ink)" strokeWidth="6" strokeLinecap="round" />
);

/** What to rig, drawn by the kind of test, with the dimensions that matter as they are set. */
export function GenericSketch({ kind, test }: { kind: TestKind; test: ReadingsTest }) {
  const units = useUnits();
  const field = (id: string): string => {
    const f = kind.rig.find((x) => x.id === id);
    const v = test.rig[id];
    return f?.as === 'quantity' && typeof v === 'number' ? formatQuantity(v, f.quantity, units, 3) : '';
  };
  const word = (
    x: number,
    y: number,
    text: string,
    colour = 'var(--ink)',
    anchor: 'start' | 'middle' | 'end' = 'middle',
  ) => (
    <text
      x={x}
      y={y}
      fontSize="11.5"
      textAnchor={anchor}
      fill={colour}
      className="num"
      stroke="var(--panel)"
      strokeWidth="3"
      paintOrder="stroke"
    >
      {text}
    </text>
  );
  const dimension = (x1: number, x2: number, y: number, text: string) => (
    <>
      <path d={`M${x1} ${y - 10}v14M${x2} ${y - 10}v14M${x1} ${y}H${x2}`} {...thin} />
      <path d={`M${x1} ${y}l7 -2.5v5ZM${x2} ${y}l-7 -2.5v5Z`} fill="var(--ink)" />
      {word((x1 + x2) / 2, y - 5, text)}
    </>
  );
  const body = (): React.ReactNode => {
    switch (kind.id) {
      case 'play-spot':
        return (
          <>
            <House />
            <path d="M38 72L206 44M38 72L206 100" {...hot} strokeDasharray="5 3" />
            <path d="M208 20V126" stroke="var(--ink)" strokeWidth="3" />
            <circle cx="206" cy="44" r="3" fill="var(--found)" />
            <circle cx="206" cy="100" r="3" fill="var(--found)" />
            {word(196, 76, 'd', 'var(--found)', 'end')}
            {dimension(38, 206, 138, `D ${field('distance')}`)}
          </>
        );
      case 'hysteresis':
        return (
          <>
            <House />
            <Arm />
            <path d="M160 30v36m-4 -8l4 8l4 -8M160 114v-36m-4 8l4 -8l4 8" {...hot} />
            {word(168, 34, '+T', 'var(--found)', 'start')}
            {word(168, 116, '−T', 'var(--found)', 'start')}
            <path d="M84 72v-26h14" {...thin} />
            {word(102, 50, 'angle', 'var(--ink)', 'start')}
            {word(38, 128, 'input held')}
          </>
        );
      case 'torque-cell':
        return (
          <>
            <House />
            <Arm />
            <path d="M152 76v20" {...ink} />
            <path d="M136 96h32v14h-32Z" {...ink} fill="var(--part-b)" />
            <path d="M124 110h56" {...ink} />
            {word(176, 106, 'cell', 'var(--ink)', 'start')}
            <path d="M70 56a34 34 0 0 1 30 -22m-8 -2l8 2l-4 7" {...hot} />
            {dimension(38, 152, 138, `L ${field('lever')}`)}
          </>
        );
      case 'turn-back':
        return (
          <>
            <House />
            <Arm />
            <path d="M160 76v16" {...ink} />
            <path d="M144 92h32l-5 22h-22Z" {...ink} fill="var(--part)" />
            {word(108, 60, 'turns by itself?', 'var(--found)')}
            {dimension(38, 160, 138, `L ${field('lever')}`)}
          </>
        );
      case 'efficiency':
      case 'no-load':
        return (
          <>
            <House />
            <path d="M6 60h12v26h-12Z" {...ink} fill="var(--part-b)" />
            <path d="M12 60V30H96" {...thin} />
            <circle cx="108" cy="30" r="12" {...ink} fill="var(--panel)" />
            {word(108, 34, 'A')}
            <path d="M120 30h50v20" {...thin} />
            {word(172, 62, 'driver')}
            {kind.id === 'efficiency' ? (
              <>
                <Arm long={90} />
                <path d="M122 76v14" {...ink} />
                <path d="M112 90h22l-4 18h-14Z" {...ink} fill="var(--part)" />
              </>
            ) : (
              word(120, 92, 'nothing on the output', 'var(--muted)')
            )}
          </>
        );
      case 'runout':
        return (
          <>
            <circle cx="84" cy="76" r="42" {...ink} fill="var(--part)" />
            <circle cx="90" cy="72" r="3" fill="var(--found)" />
            <circle cx="84" cy="76" r="1.6" fill="var(--ink)" />
            <path d="M126 76h24" stroke="var(--ink)" strokeWidth="3" />
            <circle cx="166" cy="76" r="16" {...ink} fill="var(--panel)" />
            <path d="M166 76l8 -9" {...hot} />
            <path d="M166 92v34h-40" {...ink} />
            <path d="M48 52a44 44 0 0 1 30 -20m-8 -2l8 2l-5 7" {...hot} />
            {word(166, 48, 'dial')}
          </>
        );
      case 'transmission':
        return (
          <>
            <House />
            <path d="M6 62h12v22h-12Z" {...ink} fill="var(--part-b)" />
            <circle cx="12" cy="46" r="9" {...ink} fill="var(--panel)" />
            {word(12, 32, 'in')}
            <circle cx="66" cy="72" r="13" {...ink} fill="var(--panel)" />
            {word(66, 50, 'out')}
            <path d="M86 72C110 30 130 114 150 72S190 60 206 76" {...hot} />
            {word(150, 118, 'error over a turn', 'var(--found)')}
          </>
        );
      case 'positioning':
        return (
          <>
            <path d="M20 90H206" {...ink} />
            {[40, 75, 110, 145, 180].map((x) => (
              <path key={x} d={`M${x} 82v16`} {...thin} />
            ))}
            <path d="M96 66h26l-13 16Z" {...ink} fill="var(--part)" />
            <path d="M50 58h36m-7 -4l7 4l-7 4M170 58h-36m7 -4l-7 4l7 4" {...hot} />
            {word(68, 48, 'from below', 'var(--found)')}
            {word(156, 48, 'from above', 'var(--found)')}
            {word(110, 118, 'each target, five runs')}
          </>
        );
      case 'step':
        return (
          <>
            <path d="M24 120V28M24 120H206" {...thin} />
            <path d="M24 110H70V50H206" {...ink} strokeDasharray="5 3" />
            <path d="M24 110H70C82 110 84 36 100 40S116 56 128 51S150 50 206 50" {...hot} />
            {word(120, 136, 'time')}
          </>
        );
      case 'leg-press':
        return (
          <>
            <path d="M90 14h40" {...ink} />
            <path d="M110 14L150 62L110 112" stroke="var(--ink)" strokeWidth="6" strokeLinecap="round" fill="none" />
            <circle cx="150" cy="62" r="6" {...ink} fill="var(--panel)" />
            <path d="M84 116h52v12h-52Z" {...ink} fill="var(--part-b)" />
            {word(162, 66, 'κ', 'var(--ink)', 'start')}
            {word(144, 34, field('thigh'), 'var(--ink)', 'start')}
            {word(146, 96, field('shank'), 'var(--ink)', 'start')}
            {word(60, 126, 'scale')}
          </>
        );
      case 'pluck':
        return (
          <>
            <circle cx="40" cy="70" r="18" {...ink} fill="var(--part)" />
            <circle cx="178" cy="70" r="26" {...ink} fill="var(--part)" />
            <path d="M38 52L176 44" {...ink} />
            <path d="M40 88L178 96" {...ink} />
            <path d="M40 52C80 34 130 34 176 44M40 52C80 64 130 62 176 44" {...hot} strokeWidth={1} />
            <path d="M108 20v18m-4 -6l4 6l4 -6" {...hot} />
            {dimension(40, 178, 130, `span ${field('span')}`)}
          </>
        );
      case 'noise':
        return (
          <>
            <House />
            <rect x="150" y="52" width="12" height="24" rx="6" {...ink} fill="var(--part-b)" />
            <path d="M156 76v30h-14h28" {...ink} />
            {[0, 1, 2].map((i) => (
              <path key={i} d={`M${84 + i * 18} ${64 - i * 6}q8 ${10 + i * 6} 0 ${20 + i * 12}`} {...hot} />
            ))}
            {word(120, 132, `output at ${field('speed')}`)}
          </>
        );
      case 'temperature':
        return (
          <>
            <House />
            <path d="M6 60h12v26h-12Z" {...ink} fill="var(--part-b)" />
            <path d="M12 60V34H120" {...hot} />
            <rect x="120" y="22" width="52" height="24" {...ink} fill="var(--panel)" />
            {word(146, 38, 'ϑ(t)', 'var(--found)')}
            <Arm long={80} />
            <path d="M112 76v14" {...ink} />
            <path d="M102 90h22l-4 18h-14Z" {...ink} fill="var(--part)" />
            {word(150, 104, field('torque'))}
          </>
        );
      case 'fit':
        return (
          <>
            <path d="M24 40h60v60h-60Z" {...ink} fill="var(--part)" />
            <circle cx="54" cy="70" r="14" {...ink} fill="var(--panel)" />
            <path d="M120 40h66v60h-66Z" {...ink} fill="var(--part-b)" strokeDasharray="5 3" />
            <path d="M116 36h74v68h-74Z" {...hot} />
            {word(153, 74, 'made', 'var(--found)')}
            {word(153, 124, 'drawn, dashed')}
            {dimension(24, 84, 132, 'x')}
          </>
        );
      default:
        return (
          <>
            <House />
            <Arm long={100} />
            <path d="M130 50a24 24 0 1 1 -10 -6m1 9l-1 -9l9 -1" {...hot} transform="translate(30 10)" />
            {word(120, 130, 'cycles, then play')}
          </>
        );
    }
  };
  return (
    <svg
      viewBox="0 0 218 144"
      role="img"
      aria-label={`Rig for ${kind.name.toLowerCase()}`}
      className="mb-2 block w-full"
    >
      {body()}
    </svg>
  );
}
