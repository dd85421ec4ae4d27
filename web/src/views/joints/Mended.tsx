/** What a repair has left out, said where the joint stands again. */
export function Mended({ name, leftOut, onClose }: { name: string; leftOut: readonly string[]; onClose: () => void }) {
  return (
    <div role="status" className="my-2 border-l-3 border-near bg-panel px-3 py-2" data-mended="">
      <p className="font-semibold">
        “{name}” is repaired
        {leftOut.length
          ? `; ${leftOut.length} thing${leftOut.length === 1 ? ' was' : 's were'} left out or begun anew:`
          : ', with nothing left out.'}
      </p>
      <ul className="list-disc pl-5 text-[12.5px]">
        {leftOut.slice(0, 30).map((x) => (
          <li key={x}>{x}</li>
        ))}
      </ul>
      {leftOut.length > 30 ? <p className="label">and {leftOut.length - 30} more</p> : null}
      <p>
        What was damaged stays among its earlier saves and can be exported there.{' '}
        <button type="button" className="mend" onClick={onClose}>
          Understood
        </button>
      </p>
    </div>
  );
}
