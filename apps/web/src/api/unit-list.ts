import { unitListSchema, type UnitList, type UnitListQuery } from '@zemble/contract';
import { ask } from './client.ts';

const LIST = '/units?';

/** Where a list of units is asked for, which is also the key under which it is kept. */
export function unitsKey(query: Partial<UnitListQuery>): string {
  const asked = Object.entries(query).filter(([, value]) => value !== undefined && value !== '');
  return LIST + new URLSearchParams(asked.map(([name, value]) => [name, String(value)])).toString();
}
/** Which kept answers are lists of units. */
export const isUnitsKey = (key: unknown): boolean => typeof key === 'string' && key.startsWith(LIST);

export const getUnits = (key: string): Promise<UnitList> => ask('GET', key, unitListSchema);
