import { type ReactNode } from 'react';
import { Group, Panel, Separator } from 'react-resizable-panels';
import { usePrefs } from '../state/prefs.ts';
import { useMedia } from './compact.ts';

/** What a pane may be narrowed and widened to, px. */
const [NARROWEST, WIDEST] = [180, 620];

/** Where one column is all there is room for, as the stylesheet has it, and on paper. */
const ONE_COLUMN = '(max-width: 899px), (max-height: 520px), print';

/** The width that a pane was given, px; preferences from a file may be damaged. */
const widthOf = (panes: unknown, id: string): number | undefined => {
  const width = (panes as Readonly<Record<string, unknown>> | null | undefined)?.[id];
  return typeof width === 'number' && width >= NARROWEST && width <= WIDEST ? width : undefined;
};

/**
 * A sheet and a pane beside it, whose width is the reader's: dragged or moved by keys, and kept. Where
 * there is room for one column, and on paper, they stand as `plain` has them.
 *
 * @param id by which the width is kept
 * @param name of the pane, for its separator
 * @param width of the pane until somebody moves it, px
 * @param first whether the pane stands before the sheet
 * @param plain classes of what holds both where nothing can be moved
 */
export function Panes({
  id,
  name,
  width,
  first = false,
  plain,
  pane,
  children,
}: {
  id: string;
  name: string;
  width: number;
  first?: boolean;
  plain: string;
  /** Left out: the sheet has all of the width. */
  pane: ReactNode | undefined;
  children: ReactNode;
}) {
  const kept = usePrefs((s) => widthOf(s.panes, id));
  const set = usePrefs((s) => s.set);
  const one = useMedia(ONE_COLUMN);
  if (one)
    return (
      <div className={plain}>
        {first ? pane : null}
        {children}
        {first ? null : pane}
      </div>
    );
  const side = pane ? (
    <Panel
      key="pane"
      id={`${id}-pane`}
      className={ROOM}
      style={{ overflow: 'hidden' }}
      defaultSize={kept ?? width}
      minSize={Math.min(NARROWEST, width)}
      maxSize={WIDEST}
      groupResizeBehavior="preserve-pixel-size"
    >
      {pane}
    </Panel>
  ) : null;
  return (
    <Group
      id={id}
      className="h-full min-h-0"
      onLayoutChanged={(layout) => {
        const all = document.getElementById(id)?.offsetWidth ?? 0;
        const now = Math.round(((layout[`${id}-pane`] ?? 0) / 100) * all);
        const at = widthOf(usePrefs.getState().panes, id) ?? width;
        if (now > 0 && Math.abs(now - at) > 1) set({ panes: { ...usePrefs.getState().panes, [id]: now } });
      }}
    >
      {first ? side : null}
      {first && side ? <Bar name={name} /> : null}
      <Panel id={`${id}-sheet`} className={ROOM} style={{ overflow: 'hidden' }} minSize={320}>
        {children}
      </Panel>
      {first || !side ? null : <Bar name={name} />}
      {first ? null : side}
    </Group>
  );
}

/** What lies in a panel has its width and height, however wide what is in it is. */
const ROOM = 'grid grid-cols-[minmax(0,1fr)] grid-rows-[minmax(0,1fr)]';

/** What is dragged between a sheet and its pane. */
const Bar = ({ name }: { name: string }) => (
  <Separator
    aria-label={`Width of ${name}`}
    className="w-px shrink-0 bg-rule focus-visible:bg-ink data-[separator=active]:bg-ink data-[separator=hover]:bg-muted"
  />
);
