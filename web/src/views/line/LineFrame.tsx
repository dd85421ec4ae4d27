import { Outlet, useLocation } from 'react-router';
import { Later } from '../../parts/Later.tsx';
import { Panes } from '../../parts/Panes.tsx';
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
    <Panes
      id="line"
      name="the motor’s fields"
      width={262}
      plain="one-column grid h-full min-h-0 grid-cols-1"
      pane={
        wide ? undefined : (
          <div
            className="min-h-0 overflow-y-auto bg-panel px-4 pt-3"
            role="region"
            aria-label="Motor, driver and sensor"
            tabIndex={0}
          >
            <Later>
              <MotorPanel />
            </Later>
          </div>
        )
      }
    >
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
    </Panes>
  );
}
