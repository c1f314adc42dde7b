import type { AnyMaterial } from '@fendrix/contract';
import { BASE_COLOUR } from '../src/engine/layouts.js';
import type { SurfaceModel } from '../src/engine/surfaces/surfaceModel.js';
import { SurfaceModels } from '../src/engine/surfaces/surfaceModels.js';
import type { SceneTables } from '../src/engine/tables.js';
import { SurfaceList } from '../src/geometry/surface.js';
import { buildScene } from '../src/index.js';
import { packScene } from '../src/trace/packScene.js';
import { testSet } from './sets.js';

/** The tables of a material alone, how it scatters, and the colour of its base. */
export function oneSurface(material: AnyMaterial): {
  tables: SceneTables;
  model: SurfaceModel;
  albedo: Float64Array;
} {
  const scene = buildScene(testSet({}));
  const { surfaces, media } = listOf(material);
  const tables = packScene({ ...scene, surfaces, media });
  const model = new SurfaceModels(tables).ofSurface(0);
  return { tables, model, albedo: tables.surfaces.slice(BASE_COLOUR, BASE_COLOUR + 3) };
}

function listOf(material: AnyMaterial): SurfaceList {
  const list = new SurfaceList();
  list.add(material);
  return list;
}
