import { CARRIES, type BlockData, type Carries, type LinkData, type PathData } from '@zemble/contract';
import { blockKind } from './block-kinds.ts';

/** The usual path of a kind of unit, to begin with. */
export interface PathTemplate {
  readonly id: string;
  readonly name: string;
  /** Words in a unit's kind that this template fits. */
  readonly fits: readonly string[];
  readonly path: PathData;
}

/**
 * A path from its short form: blocks as `id Name, kind`, one a line, and chains of links a line, `audio: a > b > c`. A
 * link can be tapped in as many minutes as the harder of its two ends takes to get at.
 */
export function pathFromText(blocks: string, links: string): PathData {
  const lines = (text: string) =>
    text
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean);
  const list = lines(blocks).map((line): BlockData => {
    const [, id, name, kind] = /^(\S+) (.+), (.+)$/.exec(line)!;
    return { id: id!, name: name!, kind: kind!, minutes: blockKind(kind).minutes };
  });
  const linked = lines(links).flatMap((line): LinkData[] => {
    const [carries, chain] = line.split(':') as [string, string];
    const stations = chain.split('>').map((s) => s.trim().split(/\s+/));
    return stations
      .slice(1)
      .flatMap((to, i) =>
        stations[i]!.flatMap((from) =>
          to.map((id) => ({ from, to: id, carries: CARRIES.find((c) => c === carries)! as Carries })),
        ),
      );
  });
  const minutesOf = (id: string) => list.find((b) => b.id === id)!.minutes!;
  return {
    blocks: list,
    links: linked,
    testPoints: linked.map(({ from, to }) => ({
      id: `${from}->${to}`,
      name: `${nameOf(list, from)} to ${nameOf(list, to)}`,
      link: [from, to] as [string, string],
      minutes: Math.max(minutesOf(from), minutesOf(to)),
    })),
  };
}

const nameOf = (blocks: readonly BlockData[], id: string) => blocks.find((b) => b.id === id)!.name!;

export const PATH_TEMPLATES: readonly PathTemplate[] = [
  {
    id: 'stereo-amplifier',
    name: 'Stereo amplifier',
    fits: ['stereo', 'amplifier', 'receiver', 'hi-fi'],
    path: {
      ...pathFromText(
        `inlet Mains inlet and switch, mains inlet
         fuse Fuse, fuse
         transformer Mains transformer, mains transformer
         rectifier Rectifier, rectifier
         reservoir Reservoir capacitors, reservoir capacitor
         regulator Low-voltage regulator, regulator
         cableL Left cable, cable
         cableR Right cable, cable
         selector Input selector, switch
         preL Left preamplifier, stage
         preR Right preamplifier, stage
         volL Left half of the volume control, control
         volR Right half of the volume control, control
         powL Left power amplifier, power amplifier
         powR Right power amplifier, power amplifier
         relayL Left speaker relay, relay
         relayR Right speaker relay, relay
         spkL Left speaker, speaker
         spkR Right speaker, speaker`,
        `audio: cableL > selector > preL > volL > powL > relayL > spkL
         audio: cableR > selector > preR > volR > powR > relayR > spkR
         supply: inlet > fuse > transformer > rectifier > reservoir > powL powR regulator
         supply: regulator > preL preR`,
      ),
      twins: [
        ['preL', 'preR'],
        ['volL', 'volR'],
        ['powL', 'powR'],
        ['relayL', 'relayR'],
        ['spkL', 'spkR'],
      ],
    },
  },
  {
    id: 'pedal',
    name: 'Effect pedal',
    fits: ['pedal', 'effect', 'overdrive'],
    path: pathFromText(
      `battery Battery, battery
       power Power switched by the input jack, switch
       cableIn Input cable, cable
       jackIn Input jack, socket
       bypass Bypass switch, switch
       input Input stage, stage
       effect Effect stage, opamp stage
       tone Tone control, tone control
       level Level control, control
       jackOut Output jack, socket
       cableOut Output cable, cable`,
      `audio: cableIn > jackIn > input > effect > tone > level > bypass > jackOut > cableOut
       supply: battery > power > input effect`,
    ),
  },
  {
    id: 'mixer-strip',
    name: 'Mixer strip',
    fits: ['mixer', 'desk', 'console'],
    path: pathFromText(
      `cable Microphone cable, cable
       jack Input socket, socket
       mic Microphone amplifier, stage
       gain Gain control, control
       eq Tone controls, tone control
       fader Fader, control
       mute Mute switch, switch
       bus Mixing bus, mixer
       master Master fader, control
       out Output stage, opamp stage
       socket Output socket, socket
       supply Supply, supply
       phantom Phantom supply, regulator`,
      `audio: cable > jack > mic > gain > eq > fader > mute > bus > master > out > socket
       supply: supply > mic eq bus out phantom
       supply: phantom > jack`,
    ),
  },
  {
    id: 'keyboard',
    name: 'Keyboard',
    fits: ['keyboard', 'organ', 'synthesizer'],
    path: pathFromText(
      `adapter Adapter, adapter
       jack Power socket, socket
       regulator Regulator, regulator
       contacts Key contacts, sensor
       processor Processor, processor
       memory Memory, memory
       clock Clock, clock
       converter Converter, converter
       filter Output filter, opamp stage
       volume Volume control, control
       amplifier Speaker amplifier, power amplifier
       phones Headphone socket with switch, socket
       speaker Speaker, speaker`,
      `data: contacts > processor > converter
       data: memory > processor
       clock: clock > processor
       audio: converter > filter > volume > amplifier > phones > speaker
       supply: adapter > jack > regulator > processor memory converter filter
       supply: jack > amplifier`,
    ),
  },
  {
    id: 'microphone',
    name: 'Microphone',
    fits: ['microphone', 'mic'],
    path: pathFromText(
      `capsule Capsule, microphone
       coupling Coupling capacitor, coupling capacitor
       buffer Impedance stage, stage
       switch On-off switch, switch
       output Output capacitor, coupling capacitor
       plug Plug and its joints, socket
       cable Cable, cable
       power Microphone supply, supply`,
      `audio: capsule > coupling > buffer > output > switch > plug > cable
       supply: power > capsule buffer`,
    ),
  },
  {
    id: 'sound-board',
    name: 'Sound board, processor and two sample channels',
    fits: ['sound board', 'sound', 'arcade', 'jingle'],
    path: {
      ...pathFromText(
        `supply Five-volt supply, supply
         supply12 Twelve-volt supply, supply
         clock Clock, clock
         reset Reset line, mute line
         processor Processor, processor
         memory Program memory, memory
         samplesA Sample memory A, memory
         samplesB Sample memory B, memory
         dacA Converter A, converter
         dacB Converter B, converter
         filterA Filter A, opamp stage
         filterB Filter B, opamp stage
         mix Mixing stage, mixer
         volume Volume control, control
         amplifier Power amplifier, power amplifier
         connector Speaker connector, socket
         speaker Speaker, speaker`,
        `clock: clock > processor
         control: reset > processor
         data: memory > processor
         data: processor > samplesA > dacA
         data: processor > samplesB > dacB
         audio: dacA > filterA > mix
         audio: dacB > filterB > mix
         audio: mix > volume > amplifier > connector > speaker
         supply: supply > processor memory samplesA samplesB dacA dacB clock reset
         supply: supply12 > filterA filterB mix amplifier`,
      ),
      twins: [
        ['samplesA', 'samplesB'],
        ['dacA', 'dacB'],
        ['filterA', 'filterB'],
      ],
    },
  },
  {
    id: 'powered-speaker',
    name: 'Powered speaker with switch-mode supply',
    fits: ['powered speaker', 'active speaker', 'speaker', 'monitor'],
    path: pathFromText(
      `inlet Mains inlet and switch, mains inlet
       fuse Fuse, fuse
       primary Switch-mode primary, switch-mode primary
       secondary Secondary rectifier and capacitors, reservoir capacitor
       standby Standby supply, regulator
       mute Mute line, mute line
       cable Input cable, cable
       socket Input socket, socket
       input Input stage, opamp stage
       level Level control, control
       crossover Crossover, opamp stage
       ampLow Woofer amplifier, power amplifier
       ampHigh Tweeter amplifier, power amplifier
       woofer Woofer, speaker
       tweeter Tweeter, speaker`,
      `audio: cable > socket > input > level > crossover > ampLow > woofer
       audio: crossover > ampHigh > tweeter
       control: mute > ampLow ampHigh
       supply: inlet > fuse > primary > secondary > ampLow ampHigh standby
       supply: standby > input crossover mute`,
    ),
  },
  {
    id: 'intercom',
    name: 'Intercom or talkback amplifier',
    fits: ['intercom', 'talkback', 'telephone'],
    path: pathFromText(
      `adapter Adapter, adapter
       reservoir Reservoir capacitor, reservoir capacitor
       decoupling Supply filter of the first stage, reservoir capacitor
       mic Microphone, microphone
       key Talk key, switch
       coupling Input capacitor, coupling capacitor
       first First stage, stage
       volume Volume control, control
       driver Driver, stage
       output Output stage, power amplifier
       cap Output capacitor, coupling capacitor
       socket Headphone socket with switch, socket
       speaker Speaker, speaker`,
      `audio: mic > key > coupling > first > volume > driver > output > cap > socket > speaker
       supply: adapter > reservoir > output driver decoupling
       supply: decoupling > first mic`,
    ),
  },
];

/** The templates in the order in which they fit a kind of unit. */
export function templatesFor(unitKind: string): readonly PathTemplate[] {
  const kind = unitKind.toLowerCase();
  const fit = (t: PathTemplate) => Math.max(0, ...t.fits.map((f) => (kind.includes(f) ? f.length : 0)));
  return [...PATH_TEMPLATES].sort((a, b) => fit(b) - fit(a));
}
