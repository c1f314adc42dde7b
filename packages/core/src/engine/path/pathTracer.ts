import type { Kernel } from '../kernel.js';
import { COAT_ALPHA, RAY_TO } from '../layouts.js';
import type { i32 } from '../portable.js';
import type { Sampler } from '../sampler.js';
import { SurfaceHit } from '../surfaceHit.js';
import { REFLECTS, REFRACTS, WALKS_INSIDE } from '../surfaces/surfaceModel.js';
import type { SurfaceModels } from '../surfaces/surfaceModels.js';
import type { SceneTables } from '../tables.js';
import { copy3, most3, scale3 } from '../vectors.js';
import { BoundaryStep } from './boundaryStep.js';
import { Branches, LEAST_BRANCH } from './branches.js';
import { Carrier } from './carrier.js';
import { Caustics } from './caustics.js';
import { LOST } from './cloudWalk.js';
import { Emission } from './emission.js';
import { Films } from './films.js';
import { InsideStep } from './insideStep.js';
import { LightmapLight } from './lightmapLight.js';
import { LightSampling } from './lightSampling.js';
import { LobeStep } from './lobeStep.js';
import { Media } from './media.js';
import { MirrorLights } from './mirrorLights.js';
import { Passage } from './passage.js';
import { PhotonSource } from './photonSource.js';
import { QuickStep } from './quickStep.js';
import { Reflection } from './reflection.js';
import { RoughMirrors } from './roughMirrors.js';
import { Scattering } from './scattering.js';
import { ScatterStep } from './scatterStep.js';
import { StraightStep } from './straightStep.js';
import { SPECULAR_ALONE, TraceMode } from './traceMode.js';
import { Way } from './way.js';

/** From this bounce on paths end at random (Russian roulette), which keeps the mean. */
const ROULETTE_FROM: i32 = 3;
/** Ways that have met only mirrors and clear things do so from here, or when little is left. */
const SHARP_ROULETTE_FROM: i32 = 12;
/** Even a way that loses nothing goes on with this chance only, so that it ends. */
const MOST_SURVIVAL = 0.95;

/**
 * Path tracer with light sampling and multiple importance sampling (power heuristic), nested dielectrics by
 * priority, clear or cloudy, thin sheets and lightmaps; it parts into mirrored and rest while it has met only clear
 * things. It adds to its films the luminance, for each film at unit luminance, that arrives at a point against a
 * direction. Separable by light. Without lightmaps and ambient it is unbiased.
 * Limits: colours split by three wavelengths, where a medium is told to; linear polarisation where a filter is on the lens or a film before a lamp, see `Stokes`; no light sampling through glass (light finds its
 * way by chance, or lies there as bundled light, see `Caustics`).
 * Sources: Kajiya 1986; Veach 1997 ch. 9; Schmidt and Budge 2002 (nested dielectrics); docs/physics/render.md
 *
 * Made of parts with one duty each: this class follows the ways of a path from surface to surface; what happens at a
 * surface is a step (`ScatterStep`, `Reflection`, `BoundaryStep`, `InsideStep`, `StraightStep`, `QuickStep`), chosen by
 * the `interaction` of its model.
 */
export class PathTracer {
  mode: TraceMode;
  /** What counts as level at the lens, for the films that tell ways of polarisation apart. */
  level: Float64Array = new Float64Array(3);
  films: Films;
  emission: Emission;
  quick: QuickStep;
  photonSource: PhotonSource;
  private t: SceneTables;
  private kernel: Kernel;
  private sampler: Sampler;
  private media: Media;
  private hit: SurfaceHit;
  private way: Way = new Way();
  private branches: Branches;
  private scattering: Scattering;
  private lightmaps: LightmapLight;
  private straight: StraightStep;
  private reflection: Reflection;
  private scatter: ScatterStep;
  private inside: InsideStep;
  private boundary: BoundaryStep;

  constructor(t: SceneTables, kernel: Kernel, sampler: Sampler, models: SurfaceModels) {
    const mode = new TraceMode();
    const hit = new SurfaceHit(t, models);
    const films = new Films(t);
    const media = new Media(t);
    const branches = new Branches(mode);
    const mirrors = new MirrorLights(t, models);
    const scattering = new Scattering(t, hit, new RoughMirrors(t, models));
    const lightmaps = new LightmapLight(t);
    const passage = new Passage(t, kernel, models);
    const lights = new LightSampling(
      t,
      mode,
      kernel,
      sampler,
      models,
      films,
      passage,
      lightmaps,
      mirrors,
      scattering,
    );
    const reflection = new Reflection(t, sampler, branches, mirrors, hit);
    const inside = new InsideStep(t, kernel, sampler, scattering, lights, reflection);
    const caustics = new Caustics(t, scattering, films);
    const straight = new StraightStep(t, sampler, hit);
    const lobe = new LobeStep(t, sampler, scattering);
    const quick = new QuickStep(t, sampler, media, films, branches, scattering, lights);
    const boundary = new BoundaryStep(t, mode, kernel, sampler, media, branches, scattering, inside, quick);
    this.t = t;
    this.mode = mode;
    this.kernel = kernel;
    this.sampler = sampler;
    this.media = media;
    this.hit = hit;
    this.films = films;
    this.branches = branches;
    this.scattering = scattering;
    this.lightmaps = lightmaps;
    this.emission = new Emission(t, mode, sampler, films, lightmaps, scattering, caustics);
    this.straight = straight;
    this.reflection = reflection;
    this.scatter = new ScatterStep(
      t,
      mode,
      sampler,
      branches,
      scattering,
      lights,
      reflection,
      lobe,
      caustics,
    );
    this.inside = inside;
    this.boundary = boundary;
    const carrier = new Carrier(t, kernel, scattering, boundary, reflection, straight, lobe);
    this.photonSource = new PhotonSource(t, sampler, models, carrier, lightmaps, films);
    this.quick = quick;
  }

  /** Takes note of lightmaps that have been put into the tables. */
  renewLightmaps(): void {
    this.lightmaps.renew();
  }

  /** @param scattered start on a matte surface: light that is hit at once is left out, it was counted by other means */
  trace(origin: Float64Array, direction: Float64Array, scattered: boolean): void {
    const way = this.way;
    const branches = this.branches;
    way.begin(origin, direction, scattered);
    if (this.films.analyses && !scattered) {
      way.analysed = true;
      way.stokes.begin(direction, this.level);
    }
    this.scattering.guide.aim(-1);
    this.quick.seen = 0;
    branches.start();
    this.follow(scattered);
    while (branches.waiting > 0) {
      way.copy(branches.take());
      if (way.lightmapsSampled) this.lightmaps.sampler.look(way.origin);
      this.follow(false);
    }
  }

  /** Follows a way to its end. @param skipFirstLight light that is hit at once is left out */
  private follow(skipFirstLight: boolean): void {
    const t = this.t;
    const way = this.way;
    const hit = this.hit;
    const mode = this.mode;
    const quick = mode.quick;
    let skipLight = skipFirstLight;
    for (;;) {
      const primitive = this.boundary.travel(way);
      if (primitive < 0) {
        if (!skipLight && primitive !== LOST && mode.counts(way.specular)) this.emission.meetSurround(way);
        return;
      }
      const distance = this.kernel.ray[RAY_TO];
      for (let a = 0; a < 3; a++) hit.point[a] = way.origin[a] + distance * way.direction[a];
      hit.meet(primitive, way.direction);
      if (quick && way.sharp) this.quick.noteSurface();
      const emitter: i32 = hit.fromFront ? t.emitterOf[primitive] : -1;
      if (emitter >= 0) {
        if (!skipLight && mode.counts(way.specular)) this.emission.meetLight(way, emitter);
        return;
      }
      const interaction = hit.model.interaction;
      if (interaction !== REFRACTS) {
        hit.readColour();
        if (quick && way.sharp) this.quick.noteColour();
      }
      if (t.seeThrough !== 0 && hit.model.letsStraight(hit.row) && this.straight.pass(way)) continue;
      if (mode.useLightmaps && !way.sharp && this.emission.meetLightmap(way)) return;
      skipLight = false;
      if (interaction === REFRACTS && this.boundary.passesUnseen(way)) continue;
      if (!this.step(interaction)) return;
      if (mode.specular === SPECULAR_ALONE && !way.specular) return;
      copy3(way.origin, hit.point);
      way.bounce = way.bounce + 1;
      if (!this.survives()) return;
    }
  }

  /** What the way does at the surface met. @returns false where it ends there */
  private step(interaction: i32): boolean {
    const way = this.way;
    if (interaction === REFRACTS) return this.boundary.cross(way);
    if (interaction === REFLECTS) {
      this.reflection.reflect(way);
      return true;
    }
    if (this.mode.quick) return this.quick.scatter(way);
    if (this.mode.specular === SPECULAR_ALONE)
      return this.mirrorsClearly() && this.reflection.reflectInCoat(way, 1);
    if (interaction === WALKS_INSIDE) return this.inside.walk(way);
    const goesOn = this.scatter.scatter(way);
    this.scattering.coatAlone = false;
    this.scattering.baseAlone = false;
    return goesOn;
  }

  /** Whether what scatters has a coat or skin that mirrors as glass does. */
  private mirrorsClearly(): boolean {
    const hit = this.hit;
    if (hit.model.interaction === WALKS_INSIDE) return this.t.surfaces[hit.row + COAT_ALPHA] === 0;
    return hit.model.isSpecular(hit.row);
  }

  /** Russian roulette by what is left of what the way set out with; clear ways go on longer. */
  private survives(): boolean {
    const way = this.way;
    // Within a medium luminance over the squared index is what is kept, and comes back on the way out.
    const index = this.media.index(way.inside);
    const most = most3(way.throughput) * index * index;
    if (!(most > 0)) return false;
    if (way.bounce < ROULETTE_FROM) return true;
    const left = most / way.setOutWith;
    if (way.sharp && way.bounce < SHARP_ROULETTE_FROM && left > LEAST_BRANCH) return true;
    const survival = Math.min(MOST_SURVIVAL, left);
    this.sampler.next();
    if (this.sampler.uv[0] >= survival) return false;
    scale3(way.throughput, 1 / survival);
    return true;
  }
}
