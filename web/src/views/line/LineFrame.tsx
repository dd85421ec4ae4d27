import { useMemo } from 'react';
import { NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import { useActions, type Action } from '../../app/actions.ts';
import { Later } from '../../parts/Later.tsx';
import { slug } from '../../state/address.ts';
import { useJoint } from '../../state/open.ts';
import { MotorPanel } from './MotorPanel.tsx';

const TABS = [
  ['Stages', ''],
  ['Motor', 'motor'],
  ['Find lines', 'find'],
  ['Ratio desk', 'ratio'],
  ['Shares', 'shares'],
  ['What if', 'what-if'],
  ['Compare', 'compare'],
] as const;
/** Sheets that need the whole width; beside the others stands the motor. */
const WIDE = /\/(find|ratio|what-if|compare)$/;

/**
 * The sheets of the line: its stages, its motor, what ratio it needs, where everything comes from, what would change
 * it.
 */
export default function LineFrame() {
  const joint = useJoint();
  const { pathname } = useLocation();
  const navigate = useNavigate();
  const wide = WIDE.test(pathname);
  const actions = useMemo<Action[]>(
    () =>
      TABS.map(([name, path]) => ({
        id: `line-${path || 'stages'}`,
        name: `Line: ${name.toLowerCase()}`,
        group: 'Line',
        run: () => void navigate(`/joint/${slug(joint.id)}/line/${path}`.replace(/\/$/, '')),
      })),
    [navigate, joint.id],
  );
  useActions('line-sheets', actions);
  return (
    <div className={`grid h-full min-h-0 ${wide ? 'grid-cols-1' : 'grid-cols-[minmax(0,1fr)_262px]'}`}>
      <div
        className="flex min-h-0 min-w-0 flex-col overflow-y-auto px-5 pt-2"
        tabIndex={0}
        role="region"
        aria-label="Sheet of the line"
      >
        <nav aria-label="Sheets of the line" className="no-print mb-1.5 flex gap-4 border-b border-rule">
          {TABS.map(([name, path]) => (
            <NavLink
              key={path}
              end
              to={`/joint/${slug(joint.id)}/line${path ? `/${path}` : ''}`}
              className={({ isActive }) =>
                `pb-1 ${isActive ? 'border-b-2 border-ink font-semibold' : 'text-muted hover:text-ink'}`
              }
            >
              {name}
            </NavLink>
          ))}
        </nav>
        <div className="min-h-0 flex-1">
          <Outlet />
        </div>
      </div>
      {wide ? null : (
        <div
          className="min-h-0 overflow-y-auto border-l border-rule bg-panel px-4 pt-3"
          role="region"
          aria-label="Motor, driver and sensor"
          tabIndex={0}
        >
          <Later>
            <MotorPanel />
          </Later>
        </div>
      )}
    </div>
  );
}
