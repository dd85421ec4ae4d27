import { formatQuantity, type Course, type StageMap } from '@gristmill/core';
import { memo } from 'react';
import { useCrank } from '../../state/crank.ts';
import { useUnits } from '../../state/prefs.ts';
import { MapSmall } from './MapSmall.tsx';

const W = 150;
const H = 40;
const TURN = 2 * Math.PI;

/** The value of a course at an angle, between its neighbours. */
export function courseAt(values: Float64Array, angle: number): number {
  const n = values.length - 1;
  const x = ((((angle % TURN) + TURN) % TURN) / TURN) * n;
  const i = Math.min(n - 1, Math.floor(x));
  return values[i]! + (values[i + 1]! - values[i]!) * (x - i);
}

/** One line over a turn; redrawn only when its values change. */
const Line = memo(function Line({ values, low, high }: { values: Float64Array; low: number; high: number }) {
  const n = values.length - 1;
  const y = (v: number) => H - 3 - ((v - low) / (high - low)) * (H - 6);
  return (
    <path
      d={`M${Array.from(values, (v, i) => `${((i / n) * W).toFixed(2)} ${y(v).toFixed(2)}`).join('L')}`}
      fill="none"
      stroke="var(--expected)"
      strokeWidth={1.4}
      vectorEffect="non-scaling-stroke"
    />
  );
});

function Small({ course, caption }: { course: Course; caption: string }) {
  const units = useUnits();
  const angle = useCrank((s) => s.angle);
  const turn = useCrank((s) => s.turn);
  const [least, most] = [Math.min(...course.values), Math.max(...course.values)];
  // A course that hardly moves is drawn as level, not as its rounding.
  const room = Math.max((most - least) * 0.08, Math.abs(most) * 0.02, 1e-12);
  const [low, high] = [Math.min(least, least > 0 && least < 0.5 * most ? 0 : least) - room, most + room];
  const at = courseAt(course.values, angle);
  const x = ((((angle % TURN) + TURN) % TURN) / TURN) * W;
  const y = H - 3 - ((at - low) / (high - low)) * (H - 6);
  const say = (v: number) => formatQuantity(v, course.quantity, units, 3);
  return (
    <figure className="min-w-0 flex-1" data-course={course.id}>
      <figcaption className={caption}>
        <span className="truncate" title={course.name}>
          {course.name}
        </span>
        <span className="num whitespace-nowrap text-expected">{say(at)}</span>
      </figcaption>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        preserveAspectRatio="none"
        role="img"
        aria-label={`${course.name} over a turn of the crank, from ${say(least)} to ${say(most)}`}
        className="block h-[38px] w-full cursor-ew-resize touch-none border-b border-l border-rule"
        onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
        onPointerMove={(e) => {
          if (e.buttons === 0) return;
          const box = e.currentTarget.getBoundingClientRect();
          const wanted = Math.max(0, Math.min(1, (e.clientX - box.left) / box.width)) * TURN;
          turn(wanted - (((useCrank.getState().angle % TURN) + TURN) % TURN));
        }}
      >
        <Line values={course.values} low={low} high={high} />
        <line
          x1={x}
          x2={x}
          y1={0}
          y2={H}
          stroke="var(--ink)"
          strokeWidth={0.8}
          vectorEffect="non-scaling-stroke"
          opacity={0.6}
        />
        <ellipse cx={x} cy={y} rx={2.2} ry={2.6} fill="var(--found)" />
      </svg>
    </figure>
  );
}

/** Small plots over one turn of the crank, which drag along with the drawing. */
export function CourseStrip({ courses, map }: { courses: readonly Course[]; map: StageMap | null }) {
  // Where there are many, the name has a line of its own, so that it can be read.
  const many = courses.length + (map ? 1 : 0) > 3;
  const caption = `flex gap-x-1 text-[11.5px] ${many ? 'flex-col leading-[15px]' : 'items-baseline justify-between'}`;
  return (
    <div role="group" aria-label="Over a turn of the crank" className="flex shrink-0 gap-x-3.5 pb-1.5 pt-1">
      {courses.map((c) => (
        <Small key={c.id} course={c} caption={caption} />
      ))}
      {map ? <MapSmall map={map} caption={caption} /> : null}
    </div>
  );
}
