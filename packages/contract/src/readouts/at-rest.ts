import { field } from '../field.ts';
import { readout } from './readout-definition.ts';

const PART = field.name('part', 'Part', { isNeeded: true });
const kelvinPerWatt = (label: string) => field.quantity('thermalResistance', label, { min: 0 });

export const voltage = readout({
  words: 'Direct voltage at a net',
  unit: 'V',
  quantity: 'voltage',
  fields: { net: field.name('net', 'Net', { isNeeded: true }) },
});

export const current = readout({
  words: 'Direct current in a part',
  unit: 'A',
  quantity: 'current',
  fields: { part: PART },
});

export const dissipation = readout({
  words: 'Heat in a part',
  unit: 'W',
  quantity: 'power',
  fields: { part: PART },
});

export const junctionTemperature = readout({
  words: 'Temperature of a junction',
  unit: 'degC',
  quantity: 'temperature',
  fields: {
    part: PART,
    thetaJA: kelvinPerWatt('Junction to ambient'),
    thetaJC: kelvinPerWatt('Junction to case'),
    thetaCS: kelvinPerWatt('Case to sink'),
    thetaSA: kelvinPerWatt('Sink to ambient'),
    ambientC: field.quantity('temperature', 'Ambient', { usual: 25, example: '25 °C' }),
  },
});

export const supplyPower = readout({
  words: 'Power from all supplies',
  unit: 'W',
  quantity: 'power',
  fields: {},
});

export const runTime = readout({
  words: 'Run time from a store',
  unit: 's',
  quantity: 'time',
  fields: {
    part: field.name('supply', 'In place of supply', { isNeeded: true }),
    fromV: field.quantity('voltage', 'Full at', { above: 0, isNeeded: true, example: '9 V' }),
    toV: field.quantity('voltage', 'Empty at', { above: 0, isNeeded: true, example: '6 V' }),
    capacitanceF: field.quantity('capacitor', 'Capacitance', { above: 0, example: '10 F' }),
    chargeAh: field.quantity('charge', 'or charge', { above: 0, example: '0.5 Ah' }),
    loadA: field.quantity('current', 'At this current', { above: 0, example: '20 mA' }),
  },
});

export const lifetime = readout({
  words: 'Life of an electrolytic',
  unit: 'h',
  quantity: 'hours',
  fields: {
    part: PART,
    ratedHours: field.quantity('hours', 'Rated life', { above: 0, isNeeded: true, example: '2000' }),
    ratedC: field.quantity('temperature', 'Rated at', { isNeeded: true, example: '105 °C' }),
    atC: field.quantity('temperature', 'Runs at', { isNeeded: true, example: '55 °C' }),
  },
});
