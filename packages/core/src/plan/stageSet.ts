import type {
  Camera,
  Framing,
  Job,
  Light,
  Product,
  SetDocument,
  Shot,
  Studio,
  Vector,
} from '@fendrix/contract';
import { DomainError } from '../errors.js';
import { type Bounds, joinBounds } from '../geometry/bounds.js';
import { productBounds } from '../geometry/shape.js';
import { platesNamed } from '../plates/proposePlates.js';
import { viewOf } from '../render/view.js';
import { add, scale } from '../units/vector.js';
import { roomForCamera } from './cameraRoom.js';
import { bodyFor } from './cameraTurn.js';
import { firstLight, metered } from './firstLight.js';
import { cropOf, type Format, type FormatFit } from './frameFit.js';
import { type PlacedCamera, placeCamera } from './placeCamera.js';
import { inStudio } from './studioWindows.js';
import { moodOf, openWishes } from './wishesOfBrief.js';

/** Gap between products that stand in one picture, part of the wider one's width. */
const GAP_PART = 0.35;

export interface StagedShot {
  set: SetDocument;
  placed: PlacedCamera;
  bounds: Bounds;
  /** Whether the camera stands within the studio's room; where even the nearest place does not, the set has no room. */
  inRoom: boolean;
}

/**
 * A first set for a picture: its products side by side on the mark, on a white sweep on the studio's bench, the camera
 * where the framing puts it within the room, upright where most of its formats are, and one soft light of the kit from
 * camera left at the power (or, of lasting light, the shutter) that a meter at the product asks for.
 * @param kitLights lights of the kit; a plain softbox where there are none
 * @throws {DomainError} a product of the picture that the job has not got
 */
export function stageSet(
  job: Job,
  shot: Shot,
  framing: Framing,
  studio: Studio | undefined,
  kitLights: readonly Light[] = [],
): StagedShot {
  const products = sideBySide(shot.products.map((id) => bodyOf(job, id)));
  const bounds = products.map((product) => productBounds(product)).reduce(joinBounds);
  const formats = formatsOf(job, shot);
  const { lens, fillPart, fNumber } = framing;
  const placed = placeCamera({
    body: bodyFor(framing, formats),
    lens,
    tiltDeg: shot.tiltDeg,
    fillPart,
    fNumber,
    product: bounds,
    formats,
    within: studio && roomForCamera(studio, shot.tiltDeg, framing.personM),
  });
  const middle: Vector = [0, 0, (bounds.low[2] + bounds.high[2]) / 2];
  const inRoom = !studio || standsIn(studio, placed.camera.positionM);
  const set: SetDocument = {
    format: 'fendrix-set',
    version: 3,
    name: shot.name,
    note: shot.look,
    mark: { heightAboveFloorM: studio?.benchHeightM ?? 0.75 },
    ...(studio ? { bench: studio.bench } : {}),
    ...(shot.tiltDeg > 60 ? {} : { backdrop: sweepBehind(bounds, studio, placed.camera) }),
    products,
    sheets: [],
    lights: [firstLight(bounds, middle, kitLights)],
    people: [],
    camera: {
      ...placed.camera,
      crops: formats.map((format, index) => cropOf(format, placed.fits[index] as FormatFit)),
    },
    spots: [],
    hazards: [],
    highlights: [],
    allowedOverlaps: [],
    wishes: openWishes(moodOf(shot.look, job.brief.mood)),
    settled: [],
    takes: [],
    plates: platesNamed({ products }, shot.plates),
  };
  const lit = metered(set);
  return { set: studio && inRoom ? inStudio(lit, studio) : lit, placed, bounds, inRoom };
}

function standsIn({ room, benchHeightM }: Studio, [x, y, z]: Vector): boolean {
  const fromLeft = room.markFromLeftM + x;
  const fromFront = room.markFromFrontM + y;
  const overFloor = benchHeightM + z;
  const within = (at: number, size: number) => at > 0 && at < size;
  return within(fromLeft, room.widthM) && within(fromFront, room.depthM) && within(overFloor, room.heightM);
}

/** The formats cut from a picture; all of the brief's where none is chosen. */
export function formatsOf(job: Job, shot: Shot): (Format & { id: string; name: string })[] {
  const all = job.brief.deliverables;
  const own = all.filter(({ id }) => shot.deliverables.includes(id));
  return own.length > 0 ? own : all;
}

function bodyOf(job: Job, id: string): Product {
  const found = job.products.find((product) => product.id === id);
  if (!found) throw new DomainError(`the job has no product "${id}"`);
  return { ...found.body, id, name: found.name };
}

function sideBySide(bodies: readonly Product[]): Product[] {
  const widths = bodies.map((body) => {
    const { low, high } = productBounds({ ...body, positionM: [0, 0, 0] });
    return { low: low[0], width: high[0] - low[0], foot: low[2] };
  });
  const gap = GAP_PART * Math.max(...widths.map(({ width }) => width));
  const total = widths.reduce((sum, { width }) => sum + width, 0) + gap * (bodies.length - 1);
  let x = -total / 2;
  return bodies.map((body, index) => {
    const { low, width } = widths[index] as (typeof widths)[number];
    const placed = { ...body, positionM: [x - low, 0, body.positionM[2]] as Vector };
    x += width + gap;
    return placed;
  });
}

/** Paper comes up to this wide, m. */
const WIDEST_ROLL_M = 2.72;

/** Width, round the mark, that the frame sees of a wall so far behind the mark, m; with a hand to spare. */
function widthSeenM(camera: Camera, wallM: number): number {
  const { origin, forward, right, halfWidth } = viewOf(camera);
  const ends = [-1, 1].map((side) => {
    const way = add(forward, scale(right, side * halfWidth));
    return origin[0] + (way[0] * (wallM - origin[1])) / Math.max(0.1, way[1]);
  });
  return 2 * Math.max(...ends.map(Math.abs)) + 0.1;
}

function sweepBehind(
  { low, high }: Bounds,
  studio: Studio | undefined,
  camera: Camera,
): NonNullable<SetDocument['backdrop']> {
  const size = Math.max(high[0] - low[0], high[2] - low[2]);
  const bench = studio?.bench;
  const front = bench ? bench.centreM[1] - bench.depthM / 2 : -0.45;
  const back = bench ? bench.centreM[1] + bench.depthM / 2 : 0.5;
  const backM = Math.max(back, high[1] + 0.3);
  return {
    kind: 'sweep',
    widthM: Math.min(WIDEST_ROLL_M, Math.max(1.1, 5 * size, widthSeenM(camera, backM))),
    frontM: front,
    backM,
    radiusM: 0.2,
    heightM: Math.max(0.9, 3 * size),
    material: { kind: 'matte', reflectance: [0.84, 0.84, 0.84] },
  };
}
