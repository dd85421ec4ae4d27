import { placedAt, type Frame, type Motion } from '@gristmill/core';
import * as THREE from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import type { PartMesh } from '../../../workers/solid-api.ts';

/** A body to be looked at: its surface, how its pieces go, and the colour it has. */
export interface SceneBody {
  readonly id: string;
  readonly mesh: PartMesh;
  readonly motions: readonly Motion[];
  readonly tone: string;
}

const MM = 1000;
/** Faces that bend less than this are drawn as one, rad in degrees for the library. */
const CREASE = 28;
/** How dark edges are. */
const LINE = 0.55;

export type CutAxis = 'none' | 'x' | 'y' | 'z';

interface Piece {
  readonly body: string;
  readonly group: THREE.Group;
  readonly motion: Motion;
}

interface Look {
  readonly front: THREE.MeshStandardMaterial;
  readonly back: THREE.MeshBasicMaterial;
  readonly line: THREE.LineBasicMaterial;
}

/** What is not looked at while one body is: a breath of it. */
const GHOST = 0.08;

const at = new THREE.Vector3();
const [x, y, z] = [new THREE.Vector3(), new THREE.Vector3(), new THREE.Vector3()];

/** A frame as the library has it, millimetres. */
function settle(group: THREE.Group, f: Frame): void {
  group.matrix.makeBasis(x.set(...f.x), y.set(...f.y), z.set(...f.z)).setPosition(at.set(...f.at).multiplyScalar(MM));
  group.matrixWorldNeedsUpdate = true;
}

/**
 * Bodies in space: looked at from around, turned by the crank, drawn apart, cut by a plane, one of them alone. Draws only
 * when something changed.
 *
 * What is cut shows the backs of surfaces in one flat tone, which reads as a filled section without building one.
 */
export class StageScene {
  private readonly renderer: THREE.WebGLRenderer;
  private readonly scene = new THREE.Scene();
  private readonly camera = new THREE.PerspectiveCamera(28, 1, 1, 10_000);
  private readonly controls: OrbitControls;
  private readonly plane = new THREE.Plane(new THREE.Vector3(0, -1, 0), 0);
  private readonly pieces: Piece[] = [];
  private readonly looks = new Map<string, Look>();
  private readonly ray = new THREE.Raycaster();
  private crank = 0;
  private share = 0;
  private readonly disposables: { dispose(): void }[] = [];
  private readonly box = new THREE.Box3();
  private waiting = 0;

  /** @throws Error where the browser has no WebGL */
  constructor(canvas: HTMLCanvasElement) {
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: true, alpha: true });
    this.renderer.setPixelRatio(Math.min(2, window.devicePixelRatio));
    this.camera.up.set(0, 0, 1);
    const sky = new THREE.HemisphereLight(0xffffff, 0x8a8578, 1.6);
    const lamp = new THREE.DirectionalLight(0xffffff, 1.7);
    lamp.position.set(1, -2, 3);
    this.camera.add(lamp);
    this.scene.add(sky, this.camera);
    this.controls = new OrbitControls(this.camera, canvas);
    this.controls.addEventListener('change', this.ask);
  }

  /** Draws at the next frame, once however often it is asked. */
  readonly ask = (): void => {
    this.waiting ||= requestAnimationFrame(() => {
      this.waiting = 0;
      this.renderer.render(this.scene, this.camera);
    });
  };

  /** Puts every piece of every body in its place; looked at anew where others were shown before. */
  show(bodies: readonly SceneBody[], cutTone: string, ink: string, fit: boolean): void {
    for (const p of this.pieces) this.scene.remove(p.group);
    for (const d of this.disposables) d.dispose();
    this.pieces.length = this.disposables.length = 0;
    this.looks.clear();
    for (const { id, mesh, motions, tone } of bodies) {
      const indexed = new THREE.BufferGeometry();
      indexed.setAttribute('position', new THREE.BufferAttribute(mesh.vertices, 3));
      indexed.setIndex(new THREE.BufferAttribute(mesh.triangles, 1));
      const body = indexed.toNonIndexed();
      body.computeVertexNormals();
      const lines = new THREE.EdgesGeometry(indexed, CREASE);
      const look: Look = {
        front: new THREE.MeshStandardMaterial({
          color: tone,
          roughness: 0.75,
          metalness: 0.05,
          polygonOffset: true,
          polygonOffsetFactor: 1,
          polygonOffsetUnits: 1,
        }),
        back: new THREE.MeshBasicMaterial({ color: cutTone, side: THREE.BackSide }),
        line: new THREE.LineBasicMaterial({ color: ink, transparent: true, opacity: LINE }),
      };
      this.looks.set(id, look);
      this.disposables.push(indexed, body, lines, look.front, look.back, look.line);
      for (const motion of motions) {
        const group = new THREE.Group();
        group.matrixAutoUpdate = false;
        group.add(
          new THREE.Mesh(body, look.front),
          new THREE.Mesh(body, look.back),
          new THREE.LineSegments(lines, look.line),
        );
        this.scene.add(group);
        this.pieces.push({ body: id, group, motion });
      }
    }
    const { share } = this;
    this.pose(this.crank, 0);
    this.scene.updateMatrixWorld(true);
    this.box.makeEmpty();
    for (const p of this.pieces) this.box.expandByObject(p.group);
    this.pose(this.crank, share);
    if (fit) this.fit();
    else this.ask();
  }

  /** Turns the crank, rad, and moves the pieces apart by a share of their way. */
  pose(crank: number, share: number): void {
    this.crank = crank;
    this.share = share;
    for (const p of this.pieces) settle(p.group, placedAt(p.motion, crank, share));
    this.ask();
  }

  /** Shows one body in full and the others as a breath; all where none is named. */
  alone(id: string | undefined): void {
    for (const [body, { front, back, line }] of this.looks) {
      const ghost = id !== undefined && body !== id;
      front.transparent = back.transparent = ghost;
      front.opacity = back.opacity = ghost ? GHOST : 1;
      front.depthWrite = back.depthWrite = !ghost;
      line.opacity = ghost ? GHOST : LINE;
    }
    this.ask();
  }

  /** The body at a place of the canvas, from −1 to 1 across and up; undefined where there is none. */
  bodyAt(across: number, up: number): string | undefined {
    this.ray.setFromCamera(new THREE.Vector2(across, up), this.camera);
    const planes = this.renderer.clippingPlanes;
    const hits = this.ray.intersectObjects(
      this.pieces.map((p) => p.group.children[0]!),
      false,
    );
    const hit = hits.find((h) => planes.every((p) => p.distanceToPoint(h.point) >= 0));
    return this.pieces.find((p) => p.group.children[0] === hit?.object)?.body;
  }

  /** Cuts away what lies before a plane across an axis; `share` is its place along the assembled stage. */
  cut(axis: CutAxis, share: number): void {
    this.renderer.clippingPlanes = axis === 'none' ? [] : [this.plane];
    if (axis !== 'none') {
      const [low, high] = [this.box.min[axis], this.box.max[axis]];
      const at = low + (high - low) * share;
      this.plane.normal.set(axis === 'x' ? -1 : 0, axis === 'y' ? 1 : 0, axis === 'z' ? -1 : 0);
      this.plane.constant = axis === 'y' ? -at : at;
    }
    this.ask();
  }

  /** Looks at all of it from above and beside. */
  fit(): void {
    const sphere = new THREE.Box3().setFromObject(this.scene).getBoundingSphere(new THREE.Sphere());
    if (!(sphere.radius > 0)) return;
    const far = (sphere.radius * 1.12) / Math.sin((Math.min(1, this.camera.aspect) * this.camera.fov * Math.PI) / 360);
    this.camera.position.copy(sphere.center).add(new THREE.Vector3(0.45, -0.75, 0.62).normalize().multiplyScalar(far));
    this.camera.near = far / 50;
    this.camera.far = far * 10;
    this.camera.updateProjectionMatrix();
    this.controls.target.copy(sphere.center);
    this.controls.update();
    this.ask();
  }

  /** Goes round by angles, as the arrow keys do. */
  orbit(around: number, over: number): void {
    const way = new THREE.Spherical().setFromVector3(
      this.camera.position.clone().sub(this.controls.target).applyQuaternion(Z_TO_Y),
    );
    way.theta += around;
    way.phi = Math.min(Math.PI - 0.05, Math.max(0.05, way.phi + over));
    this.camera.position
      .copy(this.controls.target)
      .add(new THREE.Vector3().setFromSpherical(way).applyQuaternion(Z_TO_Y.clone().invert()));
    this.controls.update();
    this.ask();
  }

  zoom(factor: number): void {
    this.camera.position.sub(this.controls.target).multiplyScalar(factor).add(this.controls.target);
    this.controls.update();
    this.ask();
  }

  resize(width: number, height: number): void {
    this.renderer.setSize(width, height, false);
    this.camera.aspect = width / height;
    this.camera.updateProjectionMatrix();
    this.ask();
  }

  end(): void {
    cancelAnimationFrame(this.waiting);
    this.controls.dispose();
    for (const d of this.disposables) d.dispose();
    this.renderer.dispose();
  }
}

/** Spherical angles count from y; the stage's axis is z. */
const Z_TO_Y = new THREE.Quaternion().setFromUnitVectors(new THREE.Vector3(0, 0, 1), new THREE.Vector3(0, 1, 0));
