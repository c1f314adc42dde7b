type Vector = readonly [number, number, number];

/** Between these, degrees off straight up or down, what is not level today turns into what is; see the axes of the core. */
const [UPRIGHT_DEG, LEVEL_DEG] = [8, 16];

const isPoint = (value: unknown): value is Vector =>
  Array.isArray(value) && value.length === 3 && value.every((part) => typeof part === 'number');

/**
 * An aimed thing of a document in which everything was level, also what faces almost straight up or down: it gets the roll that keeps it
 * turned as it was. All else, and what is no such thing, is left as it is.
 */
export function levelBefore<T>(thing: T): T {
  if (typeof thing !== 'object' || thing === null) return thing;
  const {
    positionM,
    aimM,
    rollDeg = 0,
  } = thing as { positionM?: unknown; aimM?: unknown; rollDeg?: unknown };
  if (!isPoint(positionM) || !isPoint(aimM) || typeof rollDeg !== 'number') return thing;
  const way = aimM.map((part, axis) => part - (positionM[axis] as number)) as [number, number, number];
  const far = Math.hypot(...way);
  const [x, y, z] = way.map((part) => part / far) as [number, number, number];
  const aside = Math.hypot(x, y);
  const offDeg = (Math.atan2(aside, Math.abs(z)) * 180) / Math.PI;
  // Exactly upright it was turned to the right, as it is today.
  if (!(far > 0) || aside < 1e-9 || offDeg >= LEVEL_DEG) return thing;
  // From as near to the right as can be to level, about the way it faces.
  const turnDeg = (Math.atan2(-x * z, y) * 180) / Math.PI;
  const part = Math.max(0, (offDeg - UPRIGHT_DEG) / (LEVEL_DEG - UPRIGHT_DEG));
  const left = (1 - part * part * (3 - 2 * part)) * turnDeg;
  const rolled = rollDeg + left;
  return { ...thing, rollDeg: rolled > 180 ? rolled - 360 : rolled < -180 ? rolled + 360 : rolled };
}
