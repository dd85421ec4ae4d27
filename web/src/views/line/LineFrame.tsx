import { Outlet, useLocation } from 'react-router';
import { Later } from '../../parts/Later.tsx';
import { SheetTabs } from '../../parts/SheetTabs.tsx';
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
  const { pathname } = useLocation();
  const wide = WIDE.test(pathname);
  return (
    <div className={`one-column grid h-full min-h-0 ${wide ? 'grid-cols-1' : 'grid-cols-[minmax(0,1fr)_262px]'}`}>
      <div
        className="flex min-h-0 min-w-0 max-w-full flex-col overflow-y-auto px-5 pt-2 max-sm:px-3"
        tabIndex={0}
        role="region"
        aria-label="Sheet of the line"
      >
        <SheetTabs view="Line" at="line" label="Sheets of the line" tabs={TABS} className="mb-1.5" />
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
