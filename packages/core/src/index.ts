export * from './calibrate/applyCalibration.js';
export * from './calibrate/calibrateKit.js';
export { cardSet, TRAP_REFLECTANCE } from './calibrate/cardSet.js';
export * from './calibrate/expectedReading.js';
export * from './calibrate/fitCalibration.js';
export { fitDuration } from './calibrate/fitDuration.js';
export * from './calibrate/fitPrinter.js';
export * from './calibrate/hourSteps.js';
export * from './colour/cast.js';
export * from './colour/deltaE.js';
export * from './colour/whitePoint.js';
export * from './compare/bandEdges.js';
export * from './compare/frameFigures.js';
export * from './compare/frameSharpness.js';
export * from './compare/frameShift.js';
export * from './compare/judgeFrame.js';
export {
  type LaidFrame,
  layFrame,
  lessFound,
  likelyPlaces,
  type Place,
  type WeighedPlaces,
  weighPlaces,
} from './compare/laidFrame.js';
export * from './compare/lightsOfFrame.js';
export type { MovePictures } from './compare/moveColumns.js';
export * from './compare/movedThings.js';
export * from './compare/seriesMatch.js';
export * from './compare/standingOfProducts.js';
export * from './compare/triedMoves.js';
export { BATCH_RAYS } from './engine/engine.js';
export * as layouts from './engine/layouts.js';
export { DomainError } from './errors.js';
export * from './exposure/dials.js';
export { decodeSrgb, encodePicture, encodePicture16, encodeSrgb, luminanceOf } from './exposure/display.js';
export { METER_AGAIN_STOPS, minutesOfDrift } from './exposure/drift.js';
export * from './exposure/equivalents.js';
export * from './exposure/exposure.js';
export * from './exposure/flash.js';
export { type LightLayer, lightLayers, weightsOfChannels } from './exposure/lightLayers.js';
export {
  channelLuminance,
  displayWeights,
  exposureWeights,
  luminanceWeights,
  recordedMidToneCdSM2,
} from './exposure/recording.js';
export * from './exposure/response.js';
export * from './exposure/series.js';
export * from './exposure/toneMaps.js';
export { encodePfm } from './formats/pfm.js';
export { encodeRadiance } from './formats/radiance.js';
export {
  type AimTarget,
  aimFacing,
  aimTargetOf,
  aimTargets,
  aimTowards,
  type Facing,
  facingOf,
} from './geometry/aim.js';
export { backdropProfile, liesOnTable } from './geometry/backdrop.js';
export { type Bounds, cornersOf } from './geometry/bounds.js';
export {
  MEASURE_WORDS,
  type Measure,
  type MeasuredForm,
  type Measures,
} from './geometry/forms/measuredForm.js';
export { MEASURED_FORMS, measuredProduct } from './geometry/forms/measuredForms.js';
export { scaleTurned, turnedSize } from './geometry/forms/scaleTurned.js';
export { type Flat, hull } from './geometry/hull.js';
export type { PrimitiveTable } from './geometry/primitives.js';
export { type OutlinePiece, outlinePieces } from './geometry/products/outline.js';
export { type ProductPart, partAt } from './geometry/products/partAt.js';
export { type ProductPiece, pieceAt, piecesOf, withPieceMaterial } from './geometry/products/pieces.js';
export { buildScene, type Scene, type Thing } from './geometry/scene.js';
export { setMeshes, type ThingMesh } from './geometry/setMeshes.js';
export {
  cameraShape,
  lightShape,
  personShape,
  productBounds,
  productShape,
  type Shape,
  sheetShape,
  standShape,
} from './geometry/shape.js';
export { cutOutSize } from './geometry/sheets.js';
export { tessellate } from './geometry/tessellate.js';
export { ambientByLight } from './judge/ambient.js';
export { cameraFigures, shakesByHand } from './judge/cameraFigures.js';
export {
  type CompositionFinding,
  type CompositionWish,
  isCaution,
  type JudgedFrame,
  judgeComposition,
} from './judge/composition.js';
export * from './judge/focus.js';
export * from './judge/ground.js';
export * from './judge/groundVerdict.js';
export { illuminanceByLight, type LightShare } from './judge/illuminance.js';
export { type LightReadings, lightReadings } from './judge/lightReadings.js';
export { type Overlap, overlapName, overlaps } from './judge/overlaps.js';
export { type Penumbra, penumbra } from './judge/penumbra.js';
export { type LightSource, pickSources } from './judge/pickSources.js';
export * from './judge/readField.js';
export {
  isSure,
  joinedTrace,
  type SpotReading,
  type SpotTrace,
  spotReading,
  traceSpot,
} from './judge/readSpot.js';
export { type RimTrace, type RimWrap, rimWrap, traceRims } from './judge/rimWrap.js';
export * from './judge/targets.js';
export {
  type BandProfile,
  bandProfile,
  type ProfileFigures,
  profileFigures,
  profileStops,
} from './mirror/bandProfile.js';
export { bandHeightM, contourAt, productHeightM } from './mirror/contour.js';
export { type GlareZones, glareZones, type ZoneGrid, type ZoneOptions } from './mirror/glareZones.js';
export { type BandLength, type MirrorBand, mirrorBand } from './mirror/mirrorBand.js';
export { type MirrorMap, mirrorMapTile } from './mirror/mirrorMap.js';
export { type MirrorShare, mirrorShares } from './mirror/mirrorShares.js';
export * from './optics/depthDesk.js';
export * from './optics/fresnel.js';
export {
  type DepthCamera,
  type DepthOfField,
  depthOfField,
  type LensFigures,
  lensFigures,
} from './optics/lens.js';
export { crossedResidue, fresnelConductorSplit, METAL_INDEX } from './optics/metal.js';
export * from './optics/movement.js';
export { type Channel, channelsOf, stokesOf } from './photometry/channels.js';
export * from './photometry/daylight.js';
export * from './photometry/guideNumber.js';
export { discOnAxisLx, rectangleOnAxisLx } from './photometry/onAxis.js';
export { dialGives, fluxOfUnit, type LightLuminance, lightLuminance, onAxisLx } from './photometry/output.js';
export { apparentAngleRad, polygonIlluminanceLx, rectangleCorners } from './photometry/polygon.js';
export * from './plan/adviseView.js';
export * from './plan/cameraRoom.js';
export * from './plan/cameraTurn.js';
export { cautionsFor, type ProductCaution } from './plan/cautions.js';
export * from './plan/checkPlace.js';
export { LASTING_PART, lastingLoadW, type MainsDraw, mainsDraw } from './plan/circuit.js';
export * from './plan/day/buildList.js';
export * from './plan/day/changePrices.js';
export * from './plan/day/dayActions.js';
export * from './plan/day/dayOfJob.js';
export * from './plan/day/learnPrices.js';
export * from './plan/day/packingList.js';
export * from './plan/day/placeFrame.js';
export * from './plan/day/runOrder.js';
export * from './plan/day/stock.js';
export * from './plan/day/tapes.js';
export { firstLight, metered } from './plan/firstLight.js';
export * from './plan/frameFit.js';
export * from './plan/jobProgress.js';
export { kitCheck, leftInKit, type MissingThing, type ThingKind } from './plan/kitCheck.js';
export { type KitLight, softLightOf, studioSoftbox } from './plan/kitLight.js';
export { type NamedSpot, namedSpots } from './plan/namedSpots.js';
export * from './plan/openQuestions.js';
export { type CameraWish, outlineOf, type PlacedCamera, placeCamera } from './plan/placeCamera.js';
export * from './plan/planDrawing.js';
export * from './plan/planGeometry.js';
export * from './plan/planSeries.js';
export { type PlainStep, type PreparationStep, proposeSteps } from './plan/preparation.js';
export * from './plan/rigging.js';
export { type SetCaution, setCautions } from './plan/setCautions.js';
export { formatsOf, type StagedShot, stageSet } from './plan/stageSet.js';
export { inStudio, studioWindows, sunThrough, type WindowLight } from './plan/studioWindows.js';
export * from './plan/windowDaylight.js';
export * from './plan/wishesOfBrief.js';
export * from './plates/exposedAs.js';
export * from './plates/layPlate.js';
export * from './plates/partMap.js';
export * from './plates/plannedFrames.js';
export * from './plates/plateFindings.js';
export * from './plates/plateMask.js';
export * from './plates/plateSet.js';
export * from './plates/proposePlates.js';
export {
  type Attachment,
  type Change,
  type ChangeDetail,
  type ChangedThing,
  changesBetween,
} from './record/changes.js';
export type { Gathered } from './render/bakeLightmaps.js';
export {
  createFeatures,
  type DenoiseFeatures,
  denoiseFeatures,
  placeFeatures,
  thingOfRegion,
} from './render/denoiseFeatures.js';
export { depthTile } from './render/depthMap.js';
export {
  addTile,
  createFilms,
  developFilms,
  type Films,
  keepFilms,
  noiseOfMean,
  type Tile,
  tilesOf,
} from './render/film.js';
export { createLook, type Look, look, NO_PART, NOTHING } from './render/look.js';
export {
  type BakedLight,
  bakedLight,
  bakeLightmaps,
  gatherLight,
  keepLight,
  prepareTracing,
  seenBy,
  sendLight,
  solveLight,
  type Tracing,
  takeBakedLight,
} from './render/prepareTracing.js';
export { COARSEST_STEP } from './render/renderSparsely.js';
export { renderTile, type TileJob } from './render/renderTile.js';
export { smoothFilms } from './render/smoothFilms.js';
export { smoothTile } from './render/smoothTile.js';
export { touchedFilms } from './render/touchedFilms.js';
export { sceneKey, traceKey } from './render/traceKey.js';
export type { FrameRect } from './render/view.js';
export { projectPoint, rayThrough, type View, viewOf, viewOfShape } from './render/view.js';
export * from './setSheet/nudges.js';
export * from './setSheet/setInSpace.js';
export * from './setSheet/tolerances.js';
export { gradientCard } from './solve/cardMaterials.js';
export type { CardAnswer } from './solve/cards/cardAnswer.js';
export type { BounceKind } from './solve/cards/liftRegion.js';
export type { MirroredKind } from './solve/cards/mirrorIn.js';
export * from './solve/cards/placeCard.js';
export { pointsOfRegion, type Region } from './solve/cards/region.js';
export { thingsInFrame } from './solve/comesIntoFrame.js';
export { cutReflector } from './solve/cutReflector.js';
export { type FlagGap, type FlagWish, flagGap } from './solve/flagGap.js';
export { groundLight, poweredForGround } from './solve/groundLight.js';
export * from './solve/lampBehindFrost.js';
export { loseGlare, type WayOut } from './solve/loseGlare.js';
export { type LightGain, moreLight, printedGain } from './solve/moreLight.js';
export { freeSheetTag, type Movable, type MovableRef, movableOf } from './solve/movables.js';
export { type BandAnswer, type BandWish, placeForBand } from './solve/placeForBand.js';
export * from './solve/placements.js';
export * from './solve/rebuildWith.js';
export * from './solve/rows.js';
export { applyChange, changeBetween, type FieldChange, type SetChange } from './solve/setChange.js';
export { type PowerSolution, type SolvedTone, solvePowers, type ToneWish } from './solve/solvePowers.js';
export { type SettingSolution, type SolvedSetting, solveSetting } from './solve/solveSetting.js';
export { asItStands, BUILT_TO, createNormal, type Misbuilt } from './standIns/asItStands.js';
export * from './standIns/onDevices.js';
export * from './standIns/ownGear.js';
export * from './standIns/ownPrinter.js';
export { type Recorder, recordedValue, recordFrame, USUAL_RECORDER } from './standIns/recordFrame.js';
export { type EngineCalls, setRay } from './trace/engineCalls.js';
export { degrees, radians } from './units/angle.js';
export { fromStand, type Stand, toStand } from './units/bearing.js';
export { aimFrame, type Frame } from './units/frame.js';
export * from './units/quantity.js';
export { createRandom } from './units/random.js';
export * as vector from './units/vector.js';
export { type Evidence, evidenceOf, type JudgedBy, judgedBy, USUAL } from './verdicts/evidence.js';
export * from './verdicts/judgeSet.js';
export { likenessOf } from './verdicts/kinds/unlike.js';
export * from './verdicts/knownFault.js';
export * from './verdicts/thresholds.js';
export { type TracedView, traceView } from './verdicts/tracedView.js';
export * from './verdicts/tryCures.js';
export { type Cause, excessOf, type Figure, type FigureUnit } from './verdicts/verdict.js';
export { TERMS, type TermName, type Terms, type Working, workedOut } from './verdicts/working.js';
