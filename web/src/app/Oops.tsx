import { Link, useRouteError } from 'react-router';
import { useOpen } from '../state/open.ts';
import { exportJoint } from './joints.ts';

/** Shown where a view failed, within the frame where that stands: the joint in memory can still be saved to a file. */
export function Oops() {
  const error = useRouteError();
  const joint = useOpen((s) => s.joint);
  return (
    <section className="mx-auto max-w-[38rem] p-10">
      <h1 className="text-[20px]">This view failed.</h1>
      <p className="pt-2">
        The fault is Gristmill’s, not yours: {error instanceof Error ? error.message : 'unknown'}. Your joint is safe as
        last saved.
      </p>
      <p className="flex gap-3 pt-4">
        <a href="/" className="btn">
          Back to the joints
        </a>
        {joint ? (
          <button type="button" className="btn" onClick={() => exportJoint(joint)}>
            Export this joint
          </button>
        ) : null}
      </p>
    </section>
  );
}

export function NotFound() {
  return (
    <main className="mx-auto max-w-[38rem] p-10">
      <h1 className="text-[20px]">There is no page here.</h1>
      <p className="pt-2">The address may have been cut off.</p>
      <p className="pt-4">
        <Link to="/" className="btn">
          Back to the joints
        </Link>
      </p>
    </main>
  );
}
