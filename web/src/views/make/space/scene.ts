import type { BodyPlace, Part } from '@gristmill/core';
import * as THREE from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import type { PartMesh } from '../../../workers/solid-api.ts';

const MM = 1000;
/** Faces that bend less than this are drawn as one, rad in degrees for the library. */
const CREASE = 28;

export type CutAxis = 'none' | 'x' | 'y' | 'z';

interface Piece {
  readonly group: THREE.Group;
  readonly at: THREE.Vector3;
  readonly apart: THREE.Vector3;
}

/** The frame of a place: its own turn, then the way its axis lies. */
export function turned(place: BodyPlace): THREE.Quaternion {
  const spin = new THREE.Quaternion().setFromAxisAngle(new THREE.Vector3(0, 0, 1), place.turn);
  return place.along === 'x'
    ? new THREE.Quaternion().setFromAxisAngle(new THREE.Vector3(0, 1, 0), Math.PI / 2).multiply(spin)
    : spin;
}

/**
 * An assembled stage in space: looked at from around, drawn apart, cut by a plane. Draws only when something changed.
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

  /** Puts every piece of every part in its place. */
  show(
    parts: readonly Part[],
    meshes: readonly PartMesh[],
    tones: readonly string[],
    cutTone: string,
    ink: string,
  ): void {
    for (const p of this.pieces) this.scene.remove(p.group);
    for (const d of this.disposables) d.dispose();
    this.pieces.length = this.disposables.length = 0;
    this.box.makeEmpty();
    meshes.forEach((mesh, i) => {
      const places = parts.find((p) => p.id === mesh.id)?.places?.(0) ?? [];
      const indexed = new THREE.BufferGeometry();
      indexed.setAttribute('position', new THREE.BufferAttribute(mesh.vertices, 3));
      indexed.setIndex(new THREE.BufferAttribute(mesh.triangles, 1));
      const body = indexed.toNonIndexed();
      body.computeVertexNormals();
      const lines = new THREE.EdgesGeometry(indexed, CREASE);
      const front = new THREE.MeshStandardMaterial({
        color: tones[i % tones.length]!,
        roughness: 0.75,
        metalness: 0.05,
        polygonOffset: true,
        polygonOffsetFactor: 1,
        polygonOffsetUnits: 1,
      });
      const back = new THREE.MeshBasicMaterial({ color: cutTone, side: THREE.BackSide });
      const line = new THREE.LineBasicMaterial({ color: ink, transparent: true, opacity: 0.55 });
      this.disposables.push(indexed, body, lines, front, back, line);
      for (const place of places) {
        const group = new THREE.Group();
        group.add(new THREE.Mesh(body, front), new THREE.Mesh(body, back), new THREE.LineSegments(lines, line));
        group.quaternion.copy(turned(place));
        const at = new THREE.Vector3(...place.at).multiplyScalar(MM);
        group.position.copy(at);
        this.scene.add(group);
        this.pieces.push({ group, at, apart: new THREE.Vector3(...place.apart).multiplyScalar(MM) });
        this.box.expandByObject(group);
      }
    });
    this.fit();
  }

  /** Moves the pieces apart by a share of their way. */
  explode(share: number): void {
    for (const p of this.pieces) p.group.position.copy(p.at).addScaledVector(p.apart, share);
    this.ask();
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
