import { requireDomain } from '../errors.js';

export interface BoomLoad {
  /** Mass at the end of the arm and the arm's own mass, kg. */
  loadKg: number;
  armKg: number;
  /** From the column to the load, and to the counterweight behind, m. */
  armM: number;
  behindM: number;
  /** From the column to the tipping line between two feet, m. */
  baseRadiusM: number;
  /** Stand and sandbags at the foot, kg. */
  standKg: number;
}

export interface BoomAnswer {
  /** Counterweight that balances load and arm over the column, kg. */
  balanceKg: number;
  /** Weight at the foot for the safety factor without a counterweight, kg, beyond what is there. */
  ballastKg: number;
  /** Holding over tipping moment about the tipping line, with the counterweight given. */
  factor: number;
  safe: boolean;
}

/** Holding moment over tipping moment that is asked for. */
export const TIP_SAFETY = 1.5;

/**
 * Tipping of a boom stand about the line between its two feet nearest the load. Moments of mass about that line:
 * what lies outside tips, what lies inside holds.
 * Limits: static, level floor, no pull on cables, no bump: that is what the factor of 1.5 and the sandbag are for.
 * @throws {DomainError} lengths or masses below 0, no base
 * Source: docs/physics/planning.md
 */
export function boomLoad(boom: BoomLoad, counterweightKg: number): BoomAnswer {
  const { loadKg, armKg, armM, behindM, baseRadiusM, standKg } = boom;
  requireDomain(
    loadKg >= 0 && armKg >= 0 && armM >= 0 && behindM >= 0 && standKg >= 0 && counterweightKg >= 0,
    'masses and lengths are not below 0',
  );
  requireDomain(baseRadiusM > 0, 'the base has a radius');
  // The arm's own mass sits in the middle of its whole length.
  const armAtM = (armM - behindM) / 2;
  const tips = [
    { kg: loadKg, atM: armM },
    { kg: armKg, atM: armAtM },
    { kg: counterweightKg, atM: -behindM },
    { kg: standKg, atM: 0 },
  ];
  let tipping = 0;
  let holding = 0;
  for (const { kg, atM } of tips) {
    const arm = atM - baseRadiusM;
    if (arm > 0) tipping += kg * arm;
    else holding -= kg * arm;
  }
  const about = loadKg * armM + armKg * armAtM;
  const missing = TIP_SAFETY * tipping - holding;
  return {
    balanceKg: behindM > 0 ? Math.max(0, about / behindM) : Infinity,
    ballastKg: Math.max(0, missing / baseRadiusM),
    factor: tipping > 0 ? holding / tipping : Infinity,
    safe: holding >= TIP_SAFETY * tipping,
  };
}
