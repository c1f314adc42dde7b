export * from './api.js';
export * from './backup.js';
export * from './calibration.js';
export type { Camera, CameraBody, CameraLens } from './camera.js';
export {
  type Devices,
  liveQuery,
  type MeterReading,
  type ReadMeter,
  readMeterBody,
  type StandInCamera,
  type StandInRail,
  type StandInTrigger,
  type StandInTurntable,
  standInCamera,
  standInRail,
  standInTrigger,
  standInTurntable,
  type TakeFrames,
  type TakenFrames,
  type Taking,
  takeFramesBody,
} from './devices.js';
export { type Equipment, type EquipmentOf, equipment } from './equipment.js';
export {
  type Frame,
  type FrameAgainstPlan,
  type FrameChange,
  type FrameList,
  type FrameMoves,
  type FrameSettings,
  frameChange,
  frameListQuery,
  framesToBody,
  type MeasuredFigure,
  type OfPlan,
  type UnderWay,
} from './frame.js';
export type { Vector } from './geometry.js';
export type { Gobo } from './gobo.js';
export { storedId } from './ids.js';
export {
  type Brief,
  type Deliverable,
  type Framing,
  type Job,
  type JobInput,
  type JobProduct,
  pictureHash,
  type Reference,
  type SeriesPlan,
  type Shot,
  type Step,
  type TapeMark,
  tapeMark,
} from './job.js';
export { jobDocument } from './jobDocument.js';
export {
  cameraJsonSchema,
  DOCUMENT_KINDS,
  type DocumentKind,
  documentJsonSchema,
  studioJsonSchema,
  surroundingJsonSchema,
  thingJsonSchema,
} from './jsonSchema.js';
export {
  type Kit,
  type KitEntry,
  type KitEntryInput,
  type KitInput,
  kitDocument,
  type OwnLimit,
  type StoredKit,
} from './kit.js';
export type {
  AimedLight,
  BareLamp,
  Light,
  LightOf,
  Softbox,
  StandingLight,
  Surround,
} from './light.js';
export type { Gel, LightColour, LightOutput } from './lightOutput.js';
export type { Likeness } from './likeness.js';
export * from './log.js';
export {
  isLongTextReference,
  LONG_TEXT,
  type LongTextReference,
  longTextReferencesOf,
  longTextsOf,
  withLongTextReferences,
  withLongTexts,
} from './longTexts.js';
export {
  type AnyMaterial,
  type Dielectric,
  type Dispersion,
  dispersion,
  type Material,
  type Metal,
  materialKinds,
  type OpaqueMaterial,
  type Reflectance,
  type Relief,
  type SheetMaterial,
  type TabletopMaterial,
  type TextTone,
  type Tone,
  type Typeface,
  typeface,
} from './material.js';
export type { MaskArea, MaskPiece, Plate } from './plate.js';
export * from './printedWedge.js';
export { checkDocument, fieldPath, type Problem, problemsOf } from './problems.js';
export type { BoxProduct, Product, ProductOf, ProfilePoint, Turned } from './product.js';
export { MOST_TRIANGLES, productDocument } from './productRules.js';
export { rebuildBody } from './rebuild.js';
export { checkStudio } from './roomRules.js';
export type { FrameFigures } from './series.js';
export { type SetDocument, type SetDocumentInput, setDocument, type Take } from './set.js';
export {
  type DayAction,
  type DayAtTable,
  dayActions,
  openPairingBody,
  type PairedDevice,
  type Pairing,
  pairBody,
  pairingQuery,
} from './setSide.js';
export type { Sheet, SheetOf } from './sheet.js';
export type { Backdrop, Bench, Highlight, Panel, Person, Room, Spot, Standing, Sweep } from './standing.js';
export type { Studio } from './studio.js';
export { type SettledVerdict, startWishes, type Wishes } from './wishes.js';
