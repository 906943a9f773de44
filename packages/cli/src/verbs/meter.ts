import { METER_MODES, meterReading, resolveLayer } from '@zemble/core';
import { loadBench } from '../file.ts';
import { UsageError, type Options } from '../options.ts';

/** `meter FILE --between NETA,NETB --mode ohm|cap|diode|dcv [--input-ohm 10M]` */
export async function meter(options: Options): Promise<unknown> {
  const { circuit } = await loadBench(options);
  const [red, black, ...more] = options.requiredText('between').split(',');
  if (!red || !black || more.length > 0)
    throw new UsageError('--between takes two nets with a comma between them, the red lead first.');
  const text = options.text('mode') ?? 'ohm';
  const mode = METER_MODES.find((m) => m === text);
  if (!mode) throw new UsageError(`--mode is one of ${METER_MODES.join(', ')}, not "${text}".`);
  const layer = options.layer();
  const input = options.text('input-ohm');
  const inputOhm = input === undefined ? undefined : options.positive('input-ohm', 10e6, 'resistor');
  const how = inputOhm === undefined ? {} : { inputOhm };
  return meterReading(resolveLayer(circuit, layer), mode, red, black, how);
}
