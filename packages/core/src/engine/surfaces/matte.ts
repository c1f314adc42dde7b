import type { SceneTables } from '../tables.js';
import { EvenBase } from './evenBase.js';

/** Paper, plaster, flour: scatters evenly. Source: Lambert; docs/physics/surfaces.md */
export class Matte extends EvenBase {
  constructor(t: SceneTables) {
    super(t);
    this.takesIrradiance = true;
  }
}
