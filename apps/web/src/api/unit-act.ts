import { isUnitField, UNIT_FIELD_KINDS, UNIT_FIELDS, type ActOf, type UnitResource } from '@zemble/contract';
import { thingsBetween } from '@zemble/core';

/**
 * What changes fields of a unit: where they are made of things, those that are another now; otherwise the fields themselves, on top of
 * the versions that they have.
 */
export function unitAct(
  unit: UnitResource,
  values: ActOf<'update-unit'>['values'],
): ActOf<'update-unit'> | ActOf<'put-things'> {
  const fields = Object.keys(values).filter(isUnitField);
  const isOfThings =
    fields.length > 0 &&
    Object.keys(values).every((name) => isUnitField(name) && UNIT_FIELD_KINDS[name].shape);
  if (isOfThings)
    return {
      type: 'put-things',
      things: fields.flatMap((field) => thingsBetween(field, unit[field], values[field])),
    };
  return {
    type: 'update-unit',
    seen: Object.fromEntries(
      UNIT_FIELDS.filter((field) => fields.includes(field)).map((field) => [
        field,
        unit.versions[field] ?? 0,
      ]),
    ),
    values,
  };
}
