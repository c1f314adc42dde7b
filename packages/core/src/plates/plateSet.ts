import type { Plate, SetDocument, Standing, Take } from '@fendrix/contract';

/** What stands on a set: all of it but its name, note, takes and plates. */
export function standingOf(set: SetDocument): Standing {
  const {
    format: _format,
    version: _version,
    name: _name,
    note: _note,
    takes: _takes,
    takeId: _takeId,
    plates: _plates,
    ...standing
  } = set;
  return standing;
}

/** A take as a set of its own, to be drawn or compared. */
export function setOfTake(take: Take): SetDocument {
  const { name, note, set } = take;
  return { format: 'fendrix-set', version: 3, name, note, takes: [], plates: [], ...set };
}

/**
 * The set as it is when a plate is taken: as it stands or as its take was, with the plate's lights and exposure.
 * Lights of the plate that are not there are passed over.
 */
export function setOfPlate(set: SetDocument, plate: Plate): SetDocument {
  const take = plate.takeId === undefined ? undefined : set.takes.find(({ id }) => id === plate.takeId);
  const standing = take ? take.set : standingOf(set);
  const { shutterS, iso, fNumber, focusM } = plate;
  const own = new Map(plate.lights.map((light) => [light.tag, light]));
  const lights = standing.lights.map((light) => {
    const other = own.get(light.tag);
    return other ? { ...light, on: other.on, powerStops: other.powerStops } : light;
  });
  const camera = {
    ...standing.camera,
    ...(shutterS === undefined ? {} : { shutterS }),
    ...(iso === undefined ? {} : { iso }),
    ...(fNumber === undefined ? {} : { fNumber }),
    ...(focusM === undefined ? {} : { focusM }),
  };
  const { format, version, note } = set;
  const name = `${set.name}, ${plate.name}`.slice(0, 80);
  return { format, version, name, note, takes: [], plates: [], ...standing, lights, camera };
}
