import { ORDERS, type ShelfOrder } from './shelf-order.ts';

/** Above a shelf of several: what is looked for, the order, and what can be done with those that are chosen. */
export function ShelfTools({
  look,
  order,
  shown,
  all,
  chosen,
  onLook,
  onOrder,
  onAll,
  onExport,
  onDelete,
}: {
  look: string;
  order: ShelfOrder;
  /** Joints that are shown, of all. */
  shown: number;
  all: number;
  chosen: number;
  onLook: (text: string) => void;
  onOrder: (order: ShelfOrder) => void;
  onAll: (on: boolean) => void;
  onExport: () => void;
  onDelete: () => void;
}) {
  return (
    <div className="flex min-h-[38px] flex-wrap items-center gap-x-5 gap-y-1 border-b border-rule py-1">
      <label className="label flex items-center gap-2">
        <input
          type="checkbox"
          className="h-4 w-4 accent-[var(--ink)]"
          checked={chosen > 0 && chosen === shown}
          disabled={shown === 0}
          onChange={(e) => onAll(e.target.checked)}
        />
        choose all
      </label>
      <label className="label flex items-baseline gap-2">
        find
        <input
          type="search"
          className="field-input w-48"
          maxLength={80}
          placeholder="name, stage, motor"
          value={look}
          onChange={(e) => onLook(e.target.value)}
        />
      </label>
      <label className="label flex items-baseline gap-2">
        by
        <select className="select" value={order} onChange={(e) => onOrder(e.target.value as ShelfOrder)}>
          {ORDERS.map((o) => (
            <option key={o.value} value={o.value}>
              {o.label}
            </option>
          ))}
        </select>
      </label>
      <span role="status" className="label">
        {chosen
          ? `${chosen} chosen`
          : shown < all
            ? `${shown} of ${all} joints`
            : `${all} joint${all === 1 ? '' : 's'}`}
      </span>
      {chosen ? (
        <>
          <button type="button" className="btn" onClick={onExport}>
            Export {chosen}
          </button>
          <button type="button" className="btn" onClick={onDelete}>
            Delete {chosen}
          </button>
        </>
      ) : null}
    </div>
  );
}
