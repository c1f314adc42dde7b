/**
 * What stands where in the rows of numbers that the engine reads and answers with. Each place follows from the one
 * before it and its size; both engines, what fills the tables and what reads the answers take it from here.
 * Vectors and colours take three numbers.
 */
import type { i32 } from './portable.js';

// A ray to ask about: where from, unit direction, nearest and farthest distance, m.
export const RAY_ORIGIN: i32 = 0;
export const RAY_DIRECTION: i32 = RAY_ORIGIN + 3;
export const RAY_FROM: i32 = RAY_DIRECTION + 3;
export const RAY_TO: i32 = RAY_FROM + 1;
export const RAY_STRIDE: i32 = RAY_TO + 1;
/** Rays start this far from the surface they leave, m: thinner than the 0.1 mm of a label. */
export const RAY_START_M = 1e-6;
/** Answers in a batch of rays: primitive, and distance. */
export const RAY_PRIMITIVE: i32 = RAY_FROM;
export const RAY_DISTANCE: i32 = RAY_TO;

// A light as sampled from a point: unit direction, distance m, density per sr, luminance, part that passes.
export const LIGHT_DIRECTION: i32 = 0;
export const LIGHT_DISTANCE: i32 = LIGHT_DIRECTION + 3;
export const LIGHT_DENSITY: i32 = LIGHT_DISTANCE + 1;
export const LIGHT_LUMINANCE: i32 = LIGHT_DENSITY + 1;
export const LIGHT_PASSED: i32 = LIGHT_LUMINANCE + 1;
export const LIGHT_SAMPLE: i32 = LIGHT_PASSED + 3;

// A camera: entrance pupil, axes, tangents of half the angles of view, radius of the pupil and plane in focus, m.
export const VIEW_ORIGIN: i32 = 0;
export const VIEW_RIGHT: i32 = VIEW_ORIGIN + 3;
export const VIEW_UP: i32 = VIEW_RIGHT + 3;
export const VIEW_FORWARD: i32 = VIEW_UP + 3;
export const VIEW_HALF_WIDTH: i32 = VIEW_FORWARD + 3;
export const VIEW_HALF_HEIGHT: i32 = VIEW_HALF_WIDTH + 1;
export const VIEW_PUPIL: i32 = VIEW_HALF_HEIGHT + 1;
export const VIEW_FOCUS: i32 = VIEW_PUPIL + 1;
export const VIEW_STRIDE: i32 = VIEW_FOCUS + 1;

/** Kinds of exact primitive; each has its own layout, and as many numbers as the largest. */
export const FLAT = 0;
export const CONE = 1;
export const BALL = 2;
export const TRIANGLE = 3;
export const PRIMITIVE_KINDS: i32 = 4;

// FLAT: corner, edge u, edge v (square to u), unit normal, 1/u.u, 1/v.v. With a, b from -1 to 1 across the edges and
// rho2 = (scale A a)^2 + (scale B b)^2 it is limited to least <= rho2 <= most and |a| + |b| <= diagonal: holes, discs,
// rings, ellipses and octagons.
export const FLAT_CORNER: i32 = 0;
export const FLAT_EDGE_U: i32 = FLAT_CORNER + 3;
export const FLAT_EDGE_V: i32 = FLAT_EDGE_U + 3;
export const FLAT_NORMAL: i32 = FLAT_EDGE_V + 3;
export const FLAT_PER_U2: i32 = FLAT_NORMAL + 3;
export const FLAT_PER_V2: i32 = FLAT_PER_U2 + 1;
export const FLAT_LEAST_RHO2: i32 = FLAT_PER_V2 + 1;
export const FLAT_MOST_RHO2: i32 = FLAT_LEAST_RHO2 + 1;
export const FLAT_SCALE_A: i32 = FLAT_MOST_RHO2 + 1;
export const FLAT_SCALE_B: i32 = FLAT_SCALE_A + 1;
export const FLAT_DIAGONAL: i32 = FLAT_SCALE_B + 1;

// CONE: foot on the axis, unit axis, height, radius at the foot, its change with height, normals at foot and top
// (outward, along the axis), middle of the arc, cosine of half the arc (-2: whole), 1 faces outward and -1 inward,
// pattern coordinate of foot and top.
export const CONE_FOOT: i32 = 0;
export const CONE_AXIS: i32 = CONE_FOOT + 3;
export const CONE_HEIGHT: i32 = CONE_AXIS + 3;
export const CONE_RADIUS: i32 = CONE_HEIGHT + 1;
export const CONE_SLOPE: i32 = CONE_RADIUS + 1;
export const CONE_FOOT_NORMAL: i32 = CONE_SLOPE + 1;
export const CONE_TOP_NORMAL: i32 = CONE_FOOT_NORMAL + 2;
export const CONE_ARC_MIDDLE: i32 = CONE_TOP_NORMAL + 2;
export const CONE_ARC_COSINE: i32 = CONE_ARC_MIDDLE + 3;
export const CONE_SIDE: i32 = CONE_ARC_COSINE + 1;
export const CONE_PATTERN_FOOT: i32 = CONE_SIDE + 1;
export const CONE_PATTERN_TOP: i32 = CONE_PATTERN_FOOT + 1;

// BALL: centre, radius, normals of three half spaces through the centre that it is limited to (zero: not limited).
export const BALL_CENTRE: i32 = 0;
export const BALL_RADIUS: i32 = BALL_CENTRE + 3;
export const BALL_LIMITS: i32 = BALL_RADIUS + 1;

// TRIANGLE: corner, edges to the two others, shading normals at the three.
export const TRIANGLE_CORNER: i32 = 0;
export const TRIANGLE_EDGE_U: i32 = TRIANGLE_CORNER + 3;
export const TRIANGLE_EDGE_V: i32 = TRIANGLE_EDGE_U + 3;
export const TRIANGLE_NORMALS: i32 = TRIANGLE_EDGE_V + 3;

/** Numbers kept for each primitive. */
export const PRIMITIVE_STRIDE: i32 = CONE_PATTERN_TOP + 1;

// Normals at a point of a primitive: of the surface itself, and for shading.
export const OWN_NORMAL: i32 = 0;
export const SHADING_NORMAL: i32 = OWN_NORMAL + 3;
export const NORMALS: i32 = SHADING_NORMAL + 3;

// A box: least and most x y z, m; of a node of the binary tree those of its two children.
export const BOX_LEAST: i32 = 0;
export const BOX_MOST: i32 = BOX_LEAST + 3;
export const BOX_STRIDE: i32 = BOX_MOST + 3;
export const NODE_STRIDE: i32 = 2 * BOX_STRIDE;

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
export const RETROREFLECTIVE = 9;
export const SURFACE_KINDS: i32 = 10;

// A surface.
export const SURFACE_KIND: i32 = 0;
export const BASE_COLOUR: i32 = SURFACE_KIND + 1;
// Coat: index (0: none), GGX alpha, 1 - mean albedo, diffuse reflectance from inside, offset of its albedo table.
export const COAT_INDEX: i32 = BASE_COLOUR + 3;
export const COAT_ALPHA: i32 = COAT_INDEX + 1;
export const COAT_PASSED: i32 = COAT_ALPHA + 1;
export const COAT_INSIDE: i32 = COAT_PASSED + 1;
export const COAT_TABLE: i32 = COAT_INSIDE + 1;
/** Coefficients of a cubic. */
export const CUBIC: i32 = 4;
// Mirror lobe: 1 if there is one, GGX alphas, complex index, offset of its albedo table, and cubics of the cosine by channel
// for what comes back of light lost between facets.
export const HAS_LOBE: i32 = COAT_TABLE + 1;
export const ALPHA_X: i32 = HAS_LOBE + 1;
export const ALPHA_Y: i32 = ALPHA_X + 1;
export const INDEX_N: i32 = ALPHA_Y + 1;
export const INDEX_K: i32 = INDEX_N + 3;
export const LOBE_TABLE: i32 = INDEX_K + 3;
export const LOBE_BETWEEN: i32 = LOBE_TABLE + 1;
// Cloth: part of the sheen lobe, offset of its albedo table, and the mean of that.
export const SHEEN: i32 = LOBE_BETWEEN + 3 * CUBIC;
export const SHEEN_TABLE: i32 = SHEEN + 1;
export const SHEEN_MEAN: i32 = SHEEN_TABLE + 1;
// Thin sheets: what is let through evenly, and what straight on.
export const SPREAD: i32 = SHEEN_MEAN + 1;
export const STRAIGHT: i32 = SPREAD + 3;
// Soft edge of a net: which edge, and its width as a part.
export const EDGE_SIDE: i32 = STRAIGHT + 3;
export const EDGE_WIDTH: i32 = EDGE_SIDE + 1;
// Wax: scatterings per metre and albedo of one, by colour.
export const SCATTER_PER_M: i32 = EDGE_WIDTH + 1;
export const SINGLE_ALBEDO: i32 = SCATTER_PER_M + 3;
// Brushed metal: 1 where the brush runs up the body.
export const BRUSH_UP: i32 = SINGLE_ALBEDO + 3;
// Clear: which medium is behind it.
export const SURFACE_MEDIUM: i32 = BRUSH_UP + 1;
// Print: kind, offset in `tones`, size of a raster.
export const TONE: i32 = SURFACE_MEDIUM + 1;
export const TONE_OFFSET: i32 = TONE + 1;
export const TONE_WIDTH: i32 = TONE_OFFSET + 1;
export const TONE_HEIGHT: i32 = TONE_WIDTH + 1;
// Relief: kind, depth and size, m.
export const RELIEF: i32 = TONE_HEIGHT + 1;
export const RELIEF_DEPTH: i32 = RELIEF + 1;
export const RELIEF_SIZE: i32 = RELIEF_DEPTH + 1;
// Retroreflective: reflectance, GGX alpha, offset of the albedo table and mean albedo of what goes back.
export const RETURN_COLOUR: i32 = RELIEF_SIZE + 1;
export const RETURN_ALPHA: i32 = RETURN_COLOUR + 3;
export const RETURN_TABLE: i32 = RETURN_ALPHA + 1;
export const RETURN_MEAN: i32 = RETURN_TABLE + 1;
/** Numbers kept for each surface. */
export const SURFACE_STRIDE: i32 = RETURN_MEAN + 1;

/** Which edge of a net opens softly. */
export const NO_EDGE = 0;
export const LEFT_EDGE = 1;
export const RIGHT_EDGE = 2;
export const BOTTOM_EDGE = 3;
export const TOP_EDGE = 4;
export const ALL_EDGES = 5;

/** Kinds of print. */
export const NO_TONE = -1;
export const ACROSS = 0;
export const UP = 1;
export const OUT = 2;
export const RASTER = 3;

// A gradient in `tones`: first and second tone, where it starts and ends, gamma.
export const GRADIENT_FIRST: i32 = 0;
export const GRADIENT_SECOND: i32 = GRADIENT_FIRST + 3;
export const GRADIENT_START: i32 = GRADIENT_SECOND + 3;
export const GRADIENT_END: i32 = GRADIENT_START + 1;
export const GRADIENT_GAMMA: i32 = GRADIENT_END + 1;

/** Kinds of relief. */
export const NO_RELIEF = 0;
export const RIPPLES = 1;
export const CRUMB = 2;
export const WEAVE = 3;
export const CRUMPLE = 4;

// A medium: index, absorption per metre, how often light is scattered per metre; of a cloudy one the surface that
// stands for it in quick pictures; part of even light that its surface lets in.
export const MEDIUM_INDEX: i32 = 0;
export const ABSORPTION: i32 = MEDIUM_INDEX + 1;
export const CLOUD_PER_M: i32 = ABSORPTION + 3;
export const CLOUD_FACE: i32 = CLOUD_PER_M + 1;
export const LETS_IN: i32 = CLOUD_FACE + 1;
/** Index for red, green and blue, all alike in what splits no light. */
export const COLOUR_INDEX: i32 = LETS_IN + 1;
/** Numbers kept for each medium. */
export const MEDIUM_STRIDE: i32 = COLOUR_INDEX + 3;

/** Kinds of emitter. */
export const FACE = 0;
export const ROUND = 1;
export const OCTAGON_FACE = 2;
export const LAMP = 3;
export const TUBE = 4;
export const SUN = 5;

// An emitter: kind, film, centre; what follows is its own.
export const EMITTER_KIND: i32 = 0;
export const EMITTER_CHANNEL: i32 = EMITTER_KIND + 1;
export const EMITTER_CENTRE: i32 = EMITTER_CHANNEL + 1;
const EMITTER_OWN: i32 = EMITTER_CENTRE + 3;
// LAMP: radius, m.
export const LAMP_RADIUS: i32 = EMITTER_OWN;
// TUBE: unit axis, half length and radius, m.
export const TUBE_AXIS: i32 = EMITTER_OWN;
export const TUBE_HALF: i32 = TUBE_AXIS + 3;
export const TUBE_RADIUS: i32 = TUBE_HALF + 1;
// Faces, and SUN, which has the face of its window: axes, half sizes, m.
export const FACE_RIGHT: i32 = EMITTER_OWN;
export const FACE_UP: i32 = FACE_RIGHT + 3;
export const FACE_FORWARD: i32 = FACE_UP + 3;
export const HALF_WIDTH: i32 = FACE_FORWARD + 3;
export const HALF_HEIGHT: i32 = HALF_WIDTH + 1;
// Hot centre - 1; scale of the luminance.
export const HOT_CENTRE: i32 = HALF_HEIGHT + 1;
export const LUMINANCE_SCALE: i32 = HOT_CENTRE + 1;
// Grid: tangent of half its cut-off, and the kind of its cells.
export const CUTOFF_TAN: i32 = LUMINANCE_SCALE + 1;
export const CELLS: i32 = CUTOFF_TAN + 1;
// Exponent of the beam's cosine, and the kind of beam.
export const BEAM_LOBE: i32 = CELLS + 1;
export const BEAM: i32 = BEAM_LOBE + 1;
// Inner over outer radius of a ROUND face.
export const INNER: i32 = BEAM + 1;
// Projector: distance of its sharp image, m; tangent of half the field.
export const FOCUS: i32 = INNER + 1;
export const FIELD_TAN: i32 = FOCUS + 1;
// Unit direction of the sun's light.
export const SUN_TOWARDS: i32 = FIELD_TAN + 1;
// Gobo: offset in `rasters`, size.
export const GOBO_OFFSET: i32 = SUN_TOWARDS + 3;
export const GOBO_WIDTH: i32 = GOBO_OFFSET + 1;
export const GOBO_HEIGHT: i32 = GOBO_WIDTH + 1;
// Table of intensities: offset in `angles`, number of vertical and horizontal angles.
export const ANGLES_OFFSET: i32 = GOBO_HEIGHT + 1;
export const VERTICALS: i32 = ANGLES_OFFSET + 1;
export const HORIZONTALS: i32 = VERTICALS + 1;
/** Numbers kept for each emitter. */
export const EMITTER_STRIDE: i32 = HORIZONTALS + 1;

/** Kinds of beam. */
export const PLAIN_BEAM = 0;
export const OVERCAST = 1;
export const PROJECTED = 2;
export const TABLE = 3;

/** Kinds of grid. */
export const NO_CELLS = 0;
export const SQUARE_CELLS = 1;
export const ROUND_CELLS = 2;

// A lightmap: primitive, side, patches across and up, index of its first patch, lightmap of the other side, area m2, and the
// side of a patch, m.
export const MAP_PRIMITIVE: i32 = 0;
export const MAP_SIDE: i32 = MAP_PRIMITIVE + 1;
export const MAP_ACROSS: i32 = MAP_SIDE + 1;
export const MAP_UP: i32 = MAP_ACROSS + 1;
export const MAP_FIRST: i32 = MAP_UP + 1;
export const MAP_OTHER: i32 = MAP_FIRST + 1;
export const MAP_AREA: i32 = MAP_OTHER + 1;
export const MAP_PATCH: i32 = MAP_AREA + 1;
/** Numbers kept for each lightmap. */
export const MAP_STRIDE: i32 = MAP_PATCH + 1;

// A photon of bundled light: where it lies, m, and which way it came; its flux, red green blue, at unit luminance; film; thing that
// it lies on and which way that faces there, as one number.
export const PHOTON_POINT: i32 = 0;
export const PHOTON_WAY: i32 = PHOTON_POINT + 3;
export const PHOTON_FLUX: i32 = PHOTON_WAY + 3;
export const PHOTON_FILM: i32 = PHOTON_FLUX + 3;
export const PHOTON_SURFACE: i32 = PHOTON_FILM + 1;
/** Numbers kept for each photon. */
export const PHOTON_STRIDE: i32 = PHOTON_SURFACE + 1;

// Light that was carried: where to, m, which way it came, what is left of it, first thing that it met, and where it lies as above.
export const CARRIED_POINT: i32 = 0;
export const CARRIED_WAY: i32 = CARRIED_POINT + 3;
export const CARRIED_LEFT: i32 = CARRIED_WAY + 3;
export const CARRIED_BY: i32 = CARRIED_LEFT + 3;
export const CARRIED_SURFACE: i32 = CARRIED_BY + 1;
export const CARRIED: i32 = CARRIED_SURFACE + 1;

/** Numbers of the key of a texel of bundled light: surface and level, and its place in steps of the level. */
export const TEXEL_KEY: i32 = 3;
// Bundled light of one film from one part of the sky in a texel: film, flux, and the way it came, weighed by its flux.
export const BUNDLED_FILM: i32 = 0;
export const BUNDLED_FLUX: i32 = BUNDLED_FILM + 1;
export const BUNDLED_WAY: i32 = BUNDLED_FLUX + 3;
/** Numbers kept for each. */
export const BUNDLED_STRIDE: i32 = BUNDLED_WAY + 3;

// A bright lightmap: power, middle, squared distance from there to its farthest corner, m2.
export const BRIGHT_POWER: i32 = 0;
export const BRIGHT_MIDDLE: i32 = BRIGHT_POWER + 1;
export const BRIGHT_REACH2: i32 = BRIGHT_MIDDLE + 3;
/** Numbers kept for each bright lightmap. */
export const BRIGHT_STRIDE: i32 = BRIGHT_REACH2 + 1;
