import type { i32 } from './portable.js';

/** Kinds of exact primitive; each has its own layout in `SceneTables.data`. */
export const FLAT = 0;
export const CONE = 1;
export const BALL = 2;
export const TRIANGLE = 3;

/** Numbers kept for each primitive. */
export const STRIDE = 20;

/** Kinds of surface. */
export const MATTE = 0;
export const COATED = 1;
export const DIELECTRIC = 2;
export const MIRROR = 3;
export const CLOTH = 4;
export const METAL = 5;
export const TRANSLUCENT = 6;
export const NET = 7;
export const WAX = 8;

/** Numbers kept for each surface, and what stands where. */
export const SURFACE = 48;
export const KIND = 0;
export const COLOUR = 1;
/** Coat: index (0: none), GGX alpha, 1 - mean albedo, diffuse reflectance from inside, place of its albedo table. */
export const COAT_INDEX = 4;
export const COAT_ALPHA = 5;
export const COAT_PASSED = 6;
export const COAT_INSIDE = 7;
export const COAT_TABLE = 8;
/** Mirror lobe: 1 if there is one, GGX alphas, complex index, albedo table, light lost, what comes back of it. */
export const LOBE = 9;
export const ALPHA_X = 10;
export const ALPHA_Y = 11;
export const INDEX_N = 12;
export const INDEX_K = 15;
export const LOBE_TABLE = 18;
export const LOST_MEAN = 19;
export const BETWEEN = 20;
export const SHEEN = 23;
export const SPREAD = 24;
export const STRAIGHT = 27;
/** Soft edge of a net: 0 none, 1 left, 2 right, 3 bottom, 4 top, 5 all; and its width. */
export const EDGE_SIDE = 30;
export const EDGE_WIDTH = 31;
export const SCATTER_PER_M = 32;
export const SINGLE = 33;
export const BRUSH_UP = 36;
export const MEDIUM = 37;
/** Print: -1 none, else its kind; place in `tones`; raster size. */
export const TONE = 38;
export const TONE_PLACE = 39;
export const TONE_WIDTH = 40;
export const TONE_HEIGHT = 41;
/** Relief: 0 none, 1 ripples, 2 crumb, 3 weave, 4 crumple; depth and size, m. */
export const RELIEF = 42;
export const RELIEF_DEPTH = 43;
export const RELIEF_SIZE = 44;

/** Kinds of print. */
export const ACROSS = 0;
export const UP = 1;
export const OUT = 2;
export const RASTER = 3;

/**
 * Numbers kept for each medium, and what stands where: index, absorption per metre of red, green, blue; how often light
 * is scattered per metre; of a cloudy one the surface that stands for it in quick pictures; part of even light that its
 * surface lets in.
 */
export const MEDIUM_STRIDE = 7;
export const ABSORPTION = 1;
export const CLOUD_PER_M = 4;
export const CLOUD_FACE = 5;
export const LETS_IN = 6;

/** Kinds of emitter. */
export const FACE = 0;
export const ROUND = 1;
export const OCTAGON_FACE = 2;
export const LAMP = 3;
export const TUBE = 4;
export const SUN = 5;

/**
 * Numbers kept for each emitter, and what stands where.
 * Faces: 2-4 centre, 5-7 right, 8-10 up, 11-13 forward, then as named. LAMP: 2-4 centre, 5 radius.
 * TUBE: 2-4 centre, 5-7 unit axis, 8 half length, 9 radius. SUN: the face of its window.
 */
export const EMITTER = 40;
export const CHANNEL = 1;
export const CENTRE = 2;
export const RIGHT = 5;
export const UPWARD = 8;
export const FORWARD = 11;
export const LAMP_RADIUS = 5;
export const TUBE_HALF = 8;
export const TUBE_RADIUS = 9;
export const HALF_WIDTH = 14;
export const HALF_HEIGHT = 15;
/** Hot centre - 1; scale of the luminance. */
export const HOT = 16;
export const SCALE = 17;
/** Grid: tangent of half its cut-off, and the kind of its cells. */
export const CUTOFF_TAN = 18;
export const CELLS = 19;
/** Exponent of the beam's cosine. */
export const BEAM_LOBE = 20;
export const BEAM = 21;
/** Inner over outer radius of a ROUND face. */
export const INNER = 22;
/** Projector: distance of its sharp image, tangent of half the field. */
export const FOCUS = 23;
export const FIELD_TAN = 24;
/** Unit direction of the sun's light. */
export const TOWARDS = 25;
/** Gobo: place in `rasters`, size; table of intensities: place in `angles`, number of vertical, horizontal angles. */
export const GOBO = 28;
export const GOBO_WIDTH = 29;
export const GOBO_HEIGHT = 30;
export const ANGLES = 31;
export const VERTICALS = 32;
export const HORIZONTALS = 33;

/** Kinds of beam. */
export const PLAIN_BEAM = 0;
export const OVERCAST = 1;
export const PROJECTED = 2;
export const TABLE = 3;

/** Kinds of grid. */
export const NO_CELLS = 0;
export const SQUARE_CELLS = 1;
export const ROUND_CELLS = 2;

/** Numbers kept for each lit panel: primitive, side, patches across and up, first patch, other side's panel, area. */
export const PANEL = 8;
export const PANEL_SIDE = 1;
export const PANEL_ACROSS = 2;
export const PANEL_UP = 3;
export const PANEL_FIRST = 4;
export const PANEL_OTHER = 5;
export const PANEL_AREA = 6;

/** A scene as numbers: what the engine reads and nothing else knows how to change. */
export class SceneTables {
  count: i32 = 0;
  /** First of the six walls of the room, see `Room`; -1 for none. */
  room: i32 = -1;
  kind: Int32Array = new Int32Array(0);
  data: Float64Array = new Float64Array(0);
  /** Index into `Scene.things`. */
  thing: Int32Array = new Int32Array(0);
  front: Int32Array = new Int32Array(0);
  back: Int32Array = new Int32Array(0);
  emitterOf: Int32Array = new Int32Array(0);

  surfaceCount: i32 = 0;
  surfaces: Float64Array = new Float64Array(0);
  /** Albedo tables of coats and lobes. */
  albedos: Float64Array = new Float64Array(0);
  tones: Float32Array = new Float32Array(0);
  media: Float64Array = new Float64Array(0);

  emitterCount: i32 = 0;
  emitters: Float64Array = new Float64Array(0);
  rasters: Float32Array = new Float32Array(0);
  angles: Float64Array = new Float64Array(0);

  channelCount: i32 = 0;
  keptChannel: Int32Array = new Int32Array(0);
  surrounds: Int32Array = new Int32Array(0);
  /** 1 where any surface lets light through straight. */
  seeThrough: i32 = 0;

  /** Bounding tree of all but the room, see `buildBoundingTree`. */
  boxes: Float64Array = new Float64Array(0);
  children: Int32Array = new Int32Array(0);
  leaves: Int32Array = new Int32Array(0);
  order: Int32Array = new Int32Array(0);
  /** 6 a primitive: its least and most x y z. */
  bounds: Float64Array = new Float64Array(0);

  /** Lit sheets, see `LitSheets`. 1 once their light is known. */
  lit: i32 = 0;
  panelAt: Int32Array = new Int32Array(0);
  panels: Float64Array = new Float64Array(0);
  irradiance: Float64Array = new Float64Array(0);
  brightPanel: Int32Array = new Int32Array(0);
  brightPlace: Int32Array = new Int32Array(0);
  /** 5 a bright panel: power, middle x y z, squared reach. */
  bright: Float64Array = new Float64Array(0);
  cumulative: Float64Array = new Float64Array(0);
  /** Where light comes from above each patch, see `Guide`. */
  guide: Float32Array = new Float32Array(0);
  /** How often each lamp and the bright sheets are asked from each patch, see `packQuestions`. */
  questions: Int32Array = new Int32Array(0);
}
