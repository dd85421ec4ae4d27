import { Outlet } from 'react-router';
import { SheetTabs } from '../../parts/SheetTabs.tsx';

const TABS = [
  ['Parts', ''],
  ['Fit', 'fit'],
  ['Section', 'section'],
  ['In space', 'space'],
  ['Going together', 'together'],
  ['Schedule', 'schedule'],
] as const;

/** The sheets of Make: parts with their files, the whole reducer along its axis and in space, and how it goes together. */
export default function MakeFrame() {
  return (
    <div className="flex h-full min-h-0 flex-col print:block print:h-auto">
      <SheetTabs view="Make" at="make" label="Sheets of Make" tabs={TABS} className="no-print mx-5 pt-2" />
      <div className="min-h-0 flex-1">
        <Outlet />
      </div>
    </div>
  );
}
