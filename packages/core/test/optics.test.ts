import type { Camera } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import {
  brewsterAngleRad,
  cameraFigures,
  depthOfField,
  diffuseFresnelOutside,
  fresnelMean,
  fresnelSplit,
  lensFigures,
  radians,
} from '../src/index.js';
import { coatAlbedo, makeCoat } from '../src/optics/coat.js';
import { testCamera } from './sets.js';

describe('Fresnel', () => {
  test('n 1.5: straight on, at 45 and 80 degrees, at Brewster', () => {
    expect(fresnelSplit(1, 1.5).mean).toBeCloseTo(0.04, 9);
    const at45 = fresnelSplit(Math.cos(radians(45)), 1.5);
    expect(at45.s).toBeCloseTo(0.092, 4);
    expect(at45.p).toBeCloseTo(0.00847, 5);
    expect(at45.mean).toBeCloseTo(0.0502, 4);
    expect(fresnelSplit(Math.cos(radians(80)), 1.5).mean).toBeCloseTo(0.388, 3);
    expect((brewsterAngleRad(1.5) * 180) / Math.PI).toBeCloseTo(56.31, 2);
    expect(fresnelSplit(Math.cos(brewsterAngleRad(1.5)), 1.5).p).toBeCloseTo(0, 12);
  });

  test('the same boundary from either side of a ray', () => {
    const outside = Math.cos(radians(50));
    const inside = Math.sqrt(1 - (1 - outside ** 2) / 1.5 ** 2);
    expect(fresnelMean(outside, 1.5)).toBeCloseTo(fresnelMean(inside, 1 / 1.5), 12);
  });

  test('beyond the critical angle everything is mirrored', () => {
    const critical = Math.cos(Math.asin(1 / 1.5));
    expect(fresnelMean(critical - 0.01, 1 / 1.5)).toBe(1);
    expect(fresnelMean(critical + 0.01, 1 / 1.5)).toBeLessThan(1);
  });

  test('diffuse light on n 1.5: 9.18 %', () => {
    expect(diffuseFresnelOutside(1.5)).toBeCloseTo(0.0918, 4);
  });
});

describe('coat', () => {
  test('a nearly smooth rough coat mirrors what a clear one does', () => {
    const rough = makeCoat(1.5, 0.02);
    for (const cosine of [1, 0.8, 0.5, 0.3]) {
      expect(coatAlbedo(rough, cosine) / fresnelMean(cosine, 1.5)).toBeCloseTo(1, 1);
    }
  });

  test('a rough coat never mirrors more than arrives', () => {
    for (const roughness of [0.05, 0.3, 0.7, 1]) {
      const coat = makeCoat(1.5, roughness);
      for (let i = 0; i <= 50; i++) {
        expect(coatAlbedo(coat, i / 50)).toBeGreaterThanOrEqual(0);
        expect(coatAlbedo(coat, i / 50)).toBeLessThanOrEqual(1);
      }
    }
  });
});

describe('lens', () => {
  test('depth of field of two worked lenses', () => {
    const focused = (focalLengthM: number, fNumber: number, focusM: number) => ({
      lens: { ...testCamera().lens, focalLengthM },
      fNumber,
      focusM,
    });
    const macro = depthOfField(focused(0.1, 11, 0.6), 0.03e-3);
    expect(macro.nearM).toBeCloseTo(0.5903, 4);
    expect(macro.farM).toBeCloseTo(0.6101, 4);
    const tele = depthOfField(focused(0.09, 16, 0.4), 0.02e-3);
    expect(tele.nearM).toBeCloseTo(0.3952, 4);
    expect(tele.farM).toBeCloseTo(0.405, 4);
    expect(depthOfField(focused(0.024, 16, 5), 0.03e-3).farM).toBe(Number.POSITIVE_INFINITY);
  });

  test('magnification 0.2: bellows 0.53 stop, Airy disc 17.7 um at f/11', () => {
    const camera: Camera = { ...testCamera(), focusM: 0.6, fNumber: 11 };
    const figures = lensFigures(camera);
    expect(figures.magnification).toBeCloseTo(0.2, 9);
    expect(figures.bellowsStops).toBeCloseTo(0.526, 3);
    expect(figures.airyDiameterM * 1e6).toBeCloseTo(17.7, 1);
    expect(figures.angleOfViewDeg.width).toBeCloseTo((2 * Math.atan(0.036 / 0.24) * 180) / Math.PI, 9);
  });

  test('with a pupil ratio the frame is still the sensor over the magnification', () => {
    const camera = testCamera();
    camera.lens.pupilRatio = 1.6;
    const { magnification, imageDistanceM } = lensFigures(camera);
    const frameWidth = (camera.body.sensorWidthM * camera.focusM) / imageDistanceM;
    expect(frameWidth).toBeCloseTo(camera.body.sensorWidthM / magnification, 9);
  });

  test('a shutter above the sync speed is told', () => {
    expect(cameraFigures({ ...testCamera(), shutterS: 1 / 500 }).shutterFasterThanSync).toBe(true);
    expect(cameraFigures({ ...testCamera(), shutterS: 1 / 200 }).shutterFasterThanSync).toBe(false);
  });
});
