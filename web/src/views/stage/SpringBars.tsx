import { springShares, type Spring } from '@gristmill/core';

/** Below this share a spring is not worth a row: it rounds to nothing. */
const LEAST = 0.005;

/** What of a stage gives under torque, softest first: the share of each spring as a bar, so that one sees which to stiffen. */
export function SpringBars({ springs }: { springs: readonly Spring[] }) {
  const shares = springShares(springs).filter((s) => s.share >= LEAST);
  if (shares.length < 2) return null;
  return (
    <table className="mb-1 w-full text-[11.5px]" aria-label="What gives, by share">
      <tbody>
        {shares.map(({ name, share }) => (
          <tr key={name}>
            <td className="py-px pl-2 pr-2 text-muted">{name}</td>
            <td className="w-[34%] py-px">
              <span
                className="block h-[7px] bg-expected"
                style={{ width: `max(1px, ${(100 * share).toFixed(1)}%)` }}
                aria-hidden="true"
              />
            </td>
            <td className="num w-[38px] py-px pr-1 text-right text-muted">{Math.round(100 * share)} %</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
