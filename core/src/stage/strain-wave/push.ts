// What the teeth's lean pushes apart: the generator inwards, the ring outwards, and when they skip.

/**
 * What the teeth of one lobe push the spline off the ring, N: T/(n·R)·tan β.
 * @param torque on the output, N·m
 * @param lobes n
 * @param radius of the ring's reference circle, m
 * @param lean of a tooth's side halfway up, rad
 * @example lobePush(2.4, 2, 0.01407, Math.PI / 6) // 49.24096
 */
export const lobePush = (torque: number, lobes: number, radius: number, lean: number): number =>
  (torque / (lobes * radius)) * Math.tan(lean);

/**
 * Torque at which the push reaches a force, N·m; the inverse of {@link lobePush}.
 * @example pushedBy(49.24096, 2, 0.01407, Math.PI / 6) // 2.4
 */
export const pushedBy = (force: number, lobes: number, radius: number, lean: number): number =>
  (force * lobes * radius) / Math.tan(lean);

/**
 * Turning stiffness that generator and ring leave at the output, N·m/rad: as the push moves a lobe by δ, the teeth slide
 * down their lean and turn by δ·tan β/R.
 * @param support radial stiffness of generator and ring at a lobe, N/m
 * @example pushedStiffness(1e6, 2, 0.01407, Math.PI / 6) // 1187.7894
 */
export const pushedStiffness = (support: number, lobes: number, radius: number, lean: number): number =>
  (lobes * support * radius * radius) / Math.tan(lean) ** 2;

/**
 * Torque at which the push has moved a lobe by the whole depth of the mesh and the teeth ride over, N·m.
 * @param depth of the mesh, m
 * @example skipTorque(1e6, 0.5e-3, 2, 0.01407, Math.PI / 6) // 24.36995
 */
export const skipTorque = (support: number, depth: number, lobes: number, radius: number, lean: number): number =>
  pushedBy(support * depth, lobes, radius, lean);
