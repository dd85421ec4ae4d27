/** A loop with known truth: friction as a play operator or following at once, noise by a seed. */
export function loop(
  seed: number,
  o: {
    play: number;
    slopes: number[];
    bends: number[];
    friction: number;
    most: number;
    steps: number;
    noise: number;
    waits?: boolean;
  },
): { torque: Float64Array; angle: Float64Array } {
  let state = seed >>> 0 || 1;
  const random = () => ((state = (Math.imul(state, 1664525) + 1013904223) >>> 0) + 0.5) / 4294967296;
  const gauss = () => Math.sqrt(-2 * Math.log(random())) * Math.cos(2 * Math.PI * random());
  const branch = [
    [0, 1],
    [1, 0],
    [0, -1],
    [-1, 0],
  ].flatMap(([a, b], k) =>
    Array.from({ length: o.steps }, (_, i) => [o.most * (a! + ((b! - a!) * (i + 1)) / o.steps), k] as const),
  );
  let x = 0;
  const torque = Float64Array.from(branch, (b) => b[0]);
  const angle = Float64Array.from(branch, ([t, k]) => {
    x =
      o.waits === false
        ? t - (k === 0 || k === 3 ? 1 : -1) * o.friction
        : Math.max(t - o.friction, Math.min(t + o.friction, x));
    const a = Math.abs(x);
    const edges = [0, ...o.bends, Infinity];
    const wind = o.slopes.reduce((s, c, j) => s + Math.max(0, Math.min(a, edges[j + 1]!) - edges[j]!) / c, 0);
    return Math.sign(x) * (o.play / 2 + wind) + o.noise * gauss();
  });
  return { torque, angle };
}
