import { svgPath } from '@gristmill/core';
import type { Coupon } from '@gristmill/core/fit/coupon';

const MM = 1000;

/** The steps of a coupon as they lie on the bed, with the places of the caliper by their numbers. */
export function CouponDrawing({ coupon, at }: { coupon: Coupon; at: string | undefined }) {
  const [first] = coupon.parts;
  return (
    <svg viewBox="-7 -67 74 74" className="w-full" role="img" aria-label="Where the caliper goes">
      {first!.curves.map(({ layer, outline }, i) => (
        <path
          key={i}
          d={svgPath(outline)}
          fill={layer === 'outside' ? 'var(--part)' : 'var(--paper)'}
          stroke="var(--ink)"
          strokeWidth={0.35}
        />
      ))}
      {coupon.measures.map((m, i) => {
        if (!m.at) return null;
        const [[x1, y1], [x2, y2]] = m.at.map(([x, y]) => [x * MM, -y * MM]) as [[number, number], [number, number]];
        const chosen = m.id === at;
        const colour = chosen ? 'var(--found)' : 'var(--expected)';
        const across = Math.abs(x2 - x1) > Math.abs(y2 - y1);
        // Short dimensions carry their number outside.
        const short = Math.hypot(x2 - x1, y2 - y1) < 13;
        const [tx, ty] = across
          ? [short ? x2 + 1.6 : x1 + 0.62 * (x2 - x1), y1 - 0.9]
          : [x1 + 1, short ? y2 - 1.6 : y1 + 0.62 * (y2 - y1)];
        return (
          <g key={m.id}>
            <line x1={x1} y1={y1} x2={x2} y2={y2} stroke={colour} strokeWidth={chosen ? 0.7 : 0.3} />
            {[
              [x1, y1],
              [x2, y2],
            ].map(([x, y], k) => (
              <line
                key={k}
                x1={x! - (across ? 0 : 1)}
                y1={y! - (across ? 1 : 0)}
                x2={x! + (across ? 0 : 1)}
                y2={y! + (across ? 1 : 0)}
                stroke={colour}
                strokeWidth={chosen ? 0.7 : 0.3}
              />
            ))}
            <text x={tx} y={ty} fontSize={3.2} fontWeight={chosen ? 700 : 500} fill={colour}>
              {i + 1}
            </text>
          </g>
        );
      })}
      <text x={60} y={5} fontSize={3.2} textAnchor="end" fill="var(--muted)">
        x
      </text>
      <text x={-5} y={-57} fontSize={3.2} fill="var(--muted)">
        y
      </text>
    </svg>
  );
}
