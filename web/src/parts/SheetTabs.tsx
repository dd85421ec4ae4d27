import { useMemo } from 'react';
import { NavLink, useNavigate } from 'react-router';
import { useActions, type Action } from '../app/actions.ts';
import { slug } from '../state/address.ts';
import { useJoint } from '../state/open.ts';

/**
 * The sheets of a view: links to each, and an action for each in the palette.
 *
 * @param view its name and the address it stands under
 * @param tabs names and addresses of its sheets; the first one's address is empty
 */
export function SheetTabs({
  view,
  at,
  label,
  tabs,
  className = '',
}: {
  view: string;
  at: string;
  label: string;
  tabs: readonly (readonly [name: string, path: string])[];
  className?: string;
}) {
  const joint = useJoint();
  const navigate = useNavigate();
  const actions = useMemo<Action[]>(
    () =>
      tabs.map(([name, path]) => ({
        id: `${at}-${path || tabs[0]![0].toLowerCase()}`,
        name: `${view}: ${name.toLowerCase()}`,
        group: view,
        run: () => void navigate(`/joint/${slug(joint.id)}/${at}/${path}`.replace(/\/$/, '')),
      })),
    [navigate, joint.id, view, at, tabs],
  );
  useActions(`${at}-sheets`, actions);
  return (
    <nav
      aria-label={label}
      className={`no-print flex gap-4 overflow-x-auto whitespace-nowrap border-b border-rule ${className}`}
    >
      {tabs.map(([name, path]) => (
        <NavLink
          key={path}
          end
          to={`/joint/${slug(joint.id)}/${at}${path ? `/${path}` : ''}`}
          className={({ isActive }) =>
            `pb-1 ${isActive ? 'border-b-2 border-ink font-semibold' : 'text-muted hover:text-ink'}`
          }
        >
          {name}
        </NavLink>
      ))}
    </nav>
  );
}
