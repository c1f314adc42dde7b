import { normalsAt } from '../geometry/normal.js';
import type { Scene } from '../geometry/scene.js';
import type { Surface } from '../geometry/surface.js';
import { type RayKernel, setRay } from '../trace/kernel.js';
import { copy3, frameRound } from './directions.js';
import type { PathState } from './pathState.js';
import type { Sampler } from './sampler.js';
import { cosineAbove } from './shade.js';

/** Steps after which a walk ends at random. */
const FREE_STEPS = 16;
/** A walk that has not come out by then has lost its way; at albedo 0.999 that is one in a million. */
const MOST_STEPS = 4096;

/**
 * A random walk inside a body that scatters light evenly to all sides, from `state.point` inwards.
 * At the boundary light is mirrored back with the coat's mean reflectance from inside, or leaves: then `state.point`,
 * `flat`, `normal` and `frame` are those of the place where it does, and `weight` what is left.
 * Limits: one mean free path for all colours; the boundary mirrors evenly, not by angle.
 * Source: Monte Carlo random walk, Jensen et al. 2001 sec. 2; docs/physics/surfaces.md
 */
export function createWaxWalk(
  scene: Scene,
  kernel: RayKernel,
  state: PathState,
): (surface: Surface, sampler: Sampler) => boolean {
  const { table, surfaces } = scene;
  const { point, flat, normal, frame, into, weight } = state;
  const at = new Float64Array(3);
  const going = new Float64Array(3);
  const normals = new Float64Array(6);
  const inwards = new Float64Array(3);

  return (surface, sampler) => {
    const inside = surface.coat?.insideDiffuse ?? 0;
    copy3(at, point);
    for (let a = 0; a < 3; a++) inwards[a] = -(flat[a] as number);
    startInwards(sampler);
    for (let step = 0; step < MOST_STEPS; step++) {
      sampler.next();
      const reach = -Math.log(1 - (sampler.uv[0] as number)) / surface.scatterPerM;
      const mirrorChoice = sampler.uv[1] as number;
      setRay(kernel.ray, at, going, reach);
      const primitive = kernel.closestHit();
      if (primitive >= 0) {
        const distance = kernel.ray[7] as number;
        for (let a = 0; a < 3; a++) at[a] = (at[a] as number) + distance * (going[a] as number);
        normalsAt(normals, table, primitive, at);
        let along = 0;
        for (let a = 0; a < 3; a++) along += (normals[a] as number) * (going[a] as number);
        const own = surfaces[table.front[primitive] as number] === surface;
        if (!own || along < 0) {
          // Something stuck on the body from outside, or another body in it: light ends there.
          return false;
        }
        if (mirrorChoice >= inside) {
          copy3(point, at);
          for (let a = 0; a < 3; a++) {
            flat[a] = normals[a] as number;
            normal[a] = normals[3 + a] as number;
          }
          frameRound(frame, normal);
          return true;
        }
        for (let a = 0; a < 3; a++) inwards[a] = -(normals[a] as number);
        startInwards(sampler);
        continue;
      }
      for (let a = 0; a < 3; a++) {
        at[a] = (at[a] as number) + reach * (going[a] as number);
        weight[a] = (weight[a] as number) * (surface.single[a] as number);
      }
      if (step > FREE_STEPS && !survives(sampler)) return false;
      turnAnywhere(sampler);
    }
    return false;
  };

  function startInwards(sampler: Sampler): void {
    frameRound(frame, inwards);
    sampler.next();
    cosineAbove(into, sampler.uv);
    for (let a = 0; a < 3; a++) {
      going[a] =
        (into[0] as number) * (frame[a] as number) +
        (into[1] as number) * (frame[3 + a] as number) +
        (into[2] as number) * (inwards[a] as number);
    }
  }

  function turnAnywhere(sampler: Sampler): void {
    sampler.next();
    const z = 1 - 2 * (sampler.uv[0] as number);
    const r = Math.sqrt(Math.max(0, 1 - z * z));
    const phi = 2 * Math.PI * (sampler.uv[1] as number);
    going[0] = r * Math.cos(phi);
    going[1] = r * Math.sin(phi);
    going[2] = z;
  }

  function survives(sampler: Sampler): boolean {
    const chance = Math.min(0.99, Math.max(weight[0] as number, weight[1] as number, weight[2] as number));
    sampler.next();
    if ((sampler.uv[0] as number) >= chance) return false;
    for (let a = 0; a < 3; a++) weight[a] = (weight[a] as number) / chance;
    return true;
  }
}
