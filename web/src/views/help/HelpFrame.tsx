import { Link, NavLink, Outlet } from 'react-router';
import { useCommonActions } from '../../app/common.ts';

const PAGES = [
  ['/help', 'Help'],
  ['/words', 'Words'],
  ['/help/method', 'Method'],
  ['/help/keys', 'Keys'],
  ['/help/about', 'About'],
] as const;

/** What is said about Gristmill: how to begin, its words, how it works things out, its keys, what it is made of. */
export default function HelpFrame() {
  useCommonActions();
  return (
    <div className="mx-auto flex min-h-full max-w-[980px] flex-col px-8 pb-6 pt-5 max-sm:px-4">
      <header className="flex flex-wrap items-baseline gap-x-6 gap-y-1 border-b border-strong pb-2">
        <Link to="/" className="text-[16px] font-bold">
          Gristmill
        </Link>
        <nav aria-label="Help">
          <ul className="flex flex-wrap gap-x-1">
            {PAGES.map(([to, name]) => (
              <li key={to}>
                <NavLink
                  to={to}
                  end
                  className={({ isActive }) =>
                    `inline-block border-b-2 px-2 py-1 ${isActive ? 'border-ink font-semibold' : 'border-transparent text-muted hover:text-ink'}`
                  }
                >
                  {name}
                </NavLink>
              </li>
            ))}
          </ul>
        </nav>
      </header>
      <Outlet />
    </div>
  );
}
