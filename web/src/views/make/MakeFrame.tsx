import { useMemo } from 'react';
import { NavLink, Outlet, useNavigate } from 'react-router';
import { useActions, type Action } from '../../app/actions.ts';
import { slug } from '../../state/address.ts';
import { useJoint } from '../../state/open.ts';

const TABS = [
  ['Parts', ''],
  ['Section', 'section'],
  ['In space', 'space'],
  ['Going together', 'together'],
] as const;

/** The sheets of Make: parts with their files, and the whole reducer along its axis. */
export default function MakeFrame() {
  const joint = useJoint();
  const navigate = useNavigate();
  const actions = useMemo<Action[]>(
    () =>
      TABS.map(([name, path]) => ({
        id: `make-${path || 'parts'}`,
        name: `Make: ${name.toLowerCase()}`,
        group: 'Make',
        run: () => void navigate(`/joint/${slug(joint.id)}/make/${path}`.replace(/\/$/, '')),
      })),
    [navigate, joint.id],
  );
  useActions('make-sheets', actions);
  return (
    <div className="flex h-full min-h-0 flex-col">
      <nav aria-label="Sheets of Make" className="no-print mx-5 flex gap-4 border-b border-rule pt-2">
        {TABS.map(([name, path]) => (
          <NavLink
            key={path}
            end
            to={`/joint/${slug(joint.id)}/make${path ? `/${path}` : ''}`}
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
  );
}
