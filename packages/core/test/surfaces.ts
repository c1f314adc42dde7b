import type { AnyMaterial } from '@fendrix/contract';
import type { SceneTables } from '../src/engine/tables.js';
import { SurfaceList } from '../src/geometry/surface.js';
import { buildScene } from '../src/index.js';
import { packScene } from '../src/trace/packScene.js';
import { testSet } from './sets.js';

/** The tables of a material alone, at place 0, and the colour of its base. */
export function oneSurface(material: AnyMaterial): { tables: SceneTables; albedo: Float64Array } {
  const scene = buildScene(testSet({}));
  const { surfaces, media } = listOf(material);
  const tables = packScene({ ...scene, surfaces, media });
  return { tables, albedo: tables.surfaces.slice(1, 4) };
}

function listOf(material: AnyMaterial): SurfaceList {
  const list = new SurfaceList();
  list.add(material);
  return list;
}
