import { deviationsOf, type Build } from '@gristmill/core';

/** What came out otherwise than drawn when a build was put together; nothing where all went as planned. */
export function BuiltOtherwise({ build }: { build: Build }) {
  const list = deviationsOf(build);
  if (list.length === 0) return null;
  return (
    <p className="label py-1" data-deviations={list.length}>
      Build {build.name} is not quite as drawn: {list.map((d) => `${d.where}: ${d.says}`).join('; ')}.
    </p>
  );
}
